import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useDeferredValue, useState } from "react";

import { markFromGlyph } from "../../api/actions";
import { glyphsQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Slider } from "../../ui/Slider";
import { Problem } from "../../ui/Trouble";

type Style = "outline" | "filled";

interface Props {
  workspace: string;
  made: (artwork: string) => void;
}

/** The glyph library: searched by word; a click makes a mark. */
export function Glyphs({ workspace, made }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="ml-auto min-h-7 text-[13px] font-semibold text-measure hover:underline">
        Make a mark of a glyph
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-40 flex h-[86vh] w-[min(820px,94vw)] -translate-1/2 flex-col border border-ink bg-sheet p-6"
        >
          <Dialog.Title className="text-lg">A mark of a glyph</Dialog.Title>
          <Library
            workspace={workspace}
            made={(artwork) => {
              setOpen(false);
              made(artwork);
            }}
          />
          <Dialog.Close asChild>
            <Button className="mt-4 self-end">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Library({ workspace, made }: Props) {
  const [words, setWords] = useState("");
  const [style, setStyle] = useState<Style>("outline");
  const [stroke, setStroke] = useState(2);
  const found = useQuery(glyphsQuery(workspace, useDeferredValue(words.trim()), style));
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: (name: string) => markFromGlyph(workspace, { name, style, stroke }),
    onSuccess: async (mark) => {
      await queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
      made(mark.id);
    },
  });
  const { count = 0, glyphs = [] } = found.data ?? {};
  return (
    <>
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-1 text-[13px]">
        <input
          type="search"
          aria-label="Find a glyph"
          placeholder="bicycle, heart, arrow left"
          autoFocus
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="min-h-8 w-60 border-b border-ink bg-transparent placeholder:text-soft"
        />
        <div role="group" aria-label="Drawn as" className="flex gap-4">
          {(["outline", "filled"] as Style[]).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === style}
              onClick={() => setStyle(one)}
              className={`min-h-7 border-b-2 ${one === style ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
            >
              {one}
            </button>
          ))}
        </div>
        {style === "outline" && (
          <div className="w-64">
            <Slider
              label="Stroke"
              least={0.5}
              most={4}
              step={0.25}
              value={stroke}
              words={(value) => `${value} / 24`}
              change={setStroke}
            />
          </div>
        )}
      </div>
      <p className="mt-2 text-[12px] text-soft" role="status">
        {count > glyphs.length
          ? `The nearest ${glyphs.length} of ${count}. Another word narrows it down.`
          : count
            ? plural(count, "glyph", "glyphs")
            : "No glyph is called that. Try another word for it."}
      </p>
      {make.error && <Problem message={make.error.message} />}
      <ul className="mt-3 grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(76px,1fr))] content-start gap-x-2 gap-y-3 overflow-y-auto">
        {glyphs.map((glyph) => (
          <li key={glyph.name}>
            <button
              type="button"
              title={[glyph.name, ...glyph.words].join(", ")}
              disabled={make.isPending}
              onClick={() => make.mutate(glyph.name)}
              className="flex w-full flex-col items-center gap-1 border border-transparent py-2 hover:border-measure"
            >
              <svg
                aria-hidden
                width={34}
                height={34}
                viewBox="0 0 24 24"
                fill={style === "filled" ? "currentColor" : "none"}
                stroke={style === "outline" ? "currentColor" : "none"}
                strokeWidth={stroke}
                strokeLinecap="round"
                strokeLinejoin="round"
              >
                {glyph.paths.map((path) => (
                  <path key={path} d={path} />
                ))}
              </svg>
              <span className="w-full truncate px-1 text-center text-[11px] text-soft">
                {glyph.name.replaceAll("-", " ")}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
