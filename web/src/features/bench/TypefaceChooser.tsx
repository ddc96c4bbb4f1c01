import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";

import type { FitOut, Schemas } from "../../api/client";
import { sampleUrl, typefacesQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/fields";
import type { Bench } from "./useBench";

type Words = Schemas["WordsPart"];
type Typeface = Schemas["Typeface"];

interface Props {
  bench: Bench;
  fit: FitOut;
  part: Words;
}

/** The typeface with its weights; the list shows the person's own words in each family. */
export function TypefaceChooser({ bench, fit, part }: Props) {
  const [open, setOpen] = useState(false);
  const faces = useQuery(typefacesQuery(bench.workspace, fit.id, part.id, fit.key));
  const own = faces.data?.find((face) => face.family === part.family);
  const set = (step: string, fields: Partial<Words>) =>
    bench.change(
      step,
      Object.entries(fields).map(([field, value]) => ({ part: part.id, field, value })),
    );
  return (
    <div className="flex flex-wrap items-baseline gap-x-2">
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Trigger className="min-h-6 border-b border-ink text-left hover:border-measure">
          {part.family}
        </Dialog.Trigger>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed top-[6vh] left-1/2 z-40 flex max-h-[88vh] w-[min(760px,94vw)] -translate-x-1/2 flex-col border border-ink bg-sheet"
          >
            <List
              bench={bench}
              part={part}
              faces={faces.data ?? []}
              choose={(family) => {
                set("change the typeface", { family });
                setOpen(false);
              }}
            />
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
      {own && own.weights.length > 1 && (
        <Select
          label="Weight"
          options={own.weights.map(String)}
          value={String(own.weight)}
          choose={(weight) => set("change the weight", { weight: Number(weight) })}
        />
      )}
      {own && own.italics.length > 0 && (
        <button
          type="button"
          aria-pressed={part.italic}
          className={`min-h-6 border-b-2 italic ${part.italic ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
          onClick={() => set("slant the letters", { italic: !part.italic })}
        >
          italic
        </button>
      )}
    </div>
  );
}

interface ListProps {
  bench: Bench;
  part: Words;
  faces: Typeface[];
  choose: (family: string) => void;
}

function List({ bench, part, faces, choose }: ListProps) {
  const [search, setSearch] = useState("");
  const [small, setSmall] = useState(false);
  const wanted = search.trim().toLowerCase();
  const shown = faces.filter(
    (face) => (!small || face.reads) && `${face.family} ${face.kind}`.toLowerCase().includes(wanted),
  );
  const text = part.text.replace(/\s+/g, " ").slice(0, 24);
  const smallest = [...bench.fit!.sheet.seen].sort((one, two) => one.width - two.width)[0];
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b-2 border-strong px-6 py-4">
        <Dialog.Title className="text-lg">Typefaces</Dialog.Title>
        <input
          autoFocus
          aria-label="Search typefaces"
          placeholder="name or kind: slab, hand, rounded …"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          className="min-h-8 flex-1 border-b border-ink bg-transparent placeholder:text-soft"
        />
        <label className="flex items-center gap-1.5 text-[13px]">
          <input type="checkbox" checked={small} onChange={(event) => setSmall(event.target.checked)} />
          only those that read small
        </label>
        <Dialog.Close asChild>
          <Button>Close</Button>
        </Dialog.Close>
      </div>
      <p className="px-6 pt-2 text-[12px] text-soft">
        {smallest
          ? `x and stroke are the small letters' height and thinnest line in ${smallest.name}, ${smallest.width} px wide.`
          : "x and stroke are the small letters' height and thinnest line in the file."}
      </p>
      <ul className="overflow-y-auto px-6 pb-4">
        {shown.map((face) => (
          <li key={face.family} className="border-b border-hairline">
            <button
              type="button"
              aria-pressed={face.family === part.family}
              onClick={() => choose(face.family)}
              className={`grid w-full grid-cols-[1fr_200px] items-center gap-4 py-2 text-left hover:bg-paper ${face.family === part.family ? "border-l-2 border-measure pl-2" : ""}`}
            >
              <img
                src={sampleUrl(bench.workspace, face.family, text, face.weight, part.italic ?? false)}
                alt={text}
                loading="lazy"
                className="h-8 max-w-full object-contain object-left dark-invert"
              />
              <span>
                <span className="block text-[13px] font-semibold">
                  {face.family} <span className="font-normal text-soft">{face.kind}</span>
                </span>
                <span className={`figure block ${face.reads ? "text-fits" : "text-risky"}`}>
                  x {face.seen_x_height_px} · stroke {face.seen_stroke_px} px,{" "}
                  {face.reads ? "reads" : "too small"}
                </span>
              </span>
            </button>
          </li>
        ))}
        {shown.length === 0 && (
          <li className="py-6 text-soft">No typeface is called that. Try a kind: slab, hand, script.</li>
        )}
      </ul>
    </>
  );
}
