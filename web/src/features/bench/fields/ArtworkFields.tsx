import type { FitOut, PartOut, Schemas } from "../../../api/client";
import { proofUrl } from "../../../api/queries";
import { ArtworkList, Menu } from "../AddPart";
import type { Bench } from "../useBench";
import { ColourChoice, ColourField } from "./ColourField";
import { Choice, Figure, Line, Select } from "../../../ui/fields";
import { useRange } from "../../../ui/useLimits";
import { OF_THE_PART, OptionalStroke } from "./OptionalStroke";
import { PaddingField } from "./PaddingField";

type Artwork = Schemas["ArtworkPart"];
const FOLLOWED: [string, string][] = [
  ["nothing", "stays"],
  ["faces", "with faces"],
  ["subject", "with what it is on"],
];
const NO_DIE = "its own outline";

interface Props {
  bench: Bench;
  fit: FitOut;
  part: Artwork;
  placed?: PartOut;
}

/** A picture or mark: how it is shown, in which shape, in which colours. */
export function ArtworkFields({ bench, fit, part, placed }: Props) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const own = placed?.artwork;
  const zooms = useRange("artwork", "zoom");
  const flat = part.role === "mark" && own && own.colours.length > 1 && own.colours.length <= 6;
  return (
    <>
      <Line term="Artwork">
        <Menu label="replace…">
          <ArtworkList bench={bench} choose={(artwork) => bench.add({ artwork, instead: part.id })} />
        </Menu>
      </Line>
      <Choice
        label="Shown"
        options={[
          ["fill", "filling"],
          ["whole", "whole"],
        ]}
        value={own?.mode ?? "whole"}
        choose={(mode) => set(mode === "fill" ? "fill the place" : "show it whole", "mode", mode)}
      />
      {own?.mode === "fill" && (
        <Line term="Zoom">
          <Figure
            label="Zoom"
            unit="×"
            step={0.1}
            {...zooms}
            value={part.zoom ?? 1}
            change={(zoom) => set("zoom the picture", "zoom", zoom)}
          />{" "}
          {part.stands !== "fill" && (
            <button
              type="button"
              aria-pressed={bench.selection.inside === part.id}
              className="min-h-6 pl-2 text-measure hover:underline"
              onClick={() => bench.selection.goInside(bench.selection.inside === part.id ? null : part.id)}
            >
              {bench.selection.inside === part.id ? "done" : "move inside"}
            </button>
          )}
        </Line>
      )}
      {own?.mode === "fill" && own.plays && (
        <Choice
          label="Its focus"
          options={FOLLOWED}
          value={part.follow ?? "nothing"}
          choose={(follow) => set("let its focus move", "follow", follow)}
        />
      )}
      {own?.mode === "whole" && (
        <>
          <PaddingField
            padding={part.padding ?? null}
            chosen={{ px: own.padding_px, "%": own.padding_percent }}
            change={(padding) => set("change the padding", "padding", padding)}
          />
          <Choice
            label="Centred"
            options={[
              ["box", "by its box"],
              ["weight", "by weight"],
            ]}
            value={part.centring ?? "box"}
            choose={(centring) => set("change the centring", "centring", centring)}
          />
          <Line term="Clearance">
            <span className="figure text-measure">{own.clearance_px} px</span>
          </Line>
        </>
      )}
      <Die bench={bench} fit={fit} part={part} set={set} />
      {own && (own.one_colour || part.tint) && (
        <ColourField
          bench={bench}
          label="Tint"
          none="as it is"
          value={part.tint ?? null}
          against={part.id}
          change={(tint) => set(tint ? "tint the mark" : "take the tint away", "tint", tint)}
        />
      )}
      {flat && <Recolour bench={bench} colours={own.colours} part={part} set={set} />}
      {part.role === "mark" && own && Math.max(placed.box.width, placed.box.height) <= 64 && (
        <PixelGrid bench={bench} fit={fit} on={own.on_grid} set={set} />
      )}
    </>
  );
}

interface GridProps {
  bench: Bench;
  fit: FitOut;
  on: boolean;
  set: Set;
}

/** Small marks fitted to the pixel grid, beside how they come out as drawn; a click chooses. */
function PixelGrid({ bench, fit, on, set }: GridProps) {
  const proof = proofUrl(bench.workspace, fit.id, fit.key, fit.width);
  const ways = [
    { fitted: true, words: "fitted", src: proof },
    { fitted: false, words: "as drawn", src: `${proof}&as_drawn=true` },
  ];
  return (
    <Line term="Pixel grid">
      <div role="group" aria-label="Pixel grid" className="flex gap-3">
        {ways.map(({ fitted, words, src }) => (
          <button
            key={words}
            type="button"
            aria-pressed={on === fitted}
            onClick={() =>
              on !== fitted &&
              set(
                fitted ? "fit to the pixel grid" : "leave it off the pixel grid",
                "grid",
                fitted ? null : false,
              )
            }
            className="text-left"
          >
            {(on || !fitted) && (
              <span className="checker light-checker block border border-hairline p-1">
                <img src={src} alt="" className="h-16 w-auto [image-rendering:pixelated]" />
              </span>
            )}
            <span
              className={`inline-block min-h-6 border-b-2 ${on === fitted ? "border-measure font-semibold" : "border-transparent text-soft"}`}
            >
              {words}
            </span>
          </button>
        ))}
      </div>
    </Line>
  );
}

type Set = (step: string, field: string, value: unknown) => void;

/** The shape that a picture is cut to, with its border and what lies behind a cut-out subject. */
function Die({ bench, fit, part, set }: { bench: Bench; fit: FitOut; part: Artwork; set: Set }) {
  const { die } = part;
  const save = (next: unknown) => set("change the shape", "die", next);
  return (
    <>
      <Line term="Cut to">
        <Select
          label="Shape of the picture"
          options={[NO_DIE, ...fit.shapes]}
          value={die?.shape ?? NO_DIE}
          choose={(shape) => set("cut it to a shape", "die", shape === NO_DIE ? null : { ...die, shape })}
        />
      </Line>
      {die && (
        <>
          <OptionalStroke
            bench={bench}
            label="Border"
            stroke={die.border}
            first={fit.first_looks.border}
            whole={OF_THE_PART}
            change={(step, border) => set(step, "die", { ...die, border })}
          />
          <ColourField
            bench={bench}
            label="Behind"
            none="clear"
            value={die.fill ?? null}
            change={(fill) => save({ ...die, fill })}
          />
        </>
      )}
    </>
  );
}

/** Each colour of a flat mark and what it becomes. */
function Recolour({
  bench,
  colours,
  part,
  set,
}: {
  bench: Bench;
  colours: string[];
  part: Artwork;
  set: Set;
}) {
  const mapping = part.recolour ?? {};
  const save = (from: string, to: string | null) => {
    const others = Object.fromEntries(Object.entries(mapping).filter(([colour]) => colour !== from));
    set("recolour the mark", "recolour", to && to !== from ? { ...others, [from]: to } : others);
  };
  return (
    <Line term="Colours">
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {colours.map((from) => (
          <span key={from} className="flex items-center gap-1">
            <span aria-hidden className="size-4 border border-hairline" style={{ background: from }} />
            <span className="text-soft">→</span>
            <Menu label={mapping[from] ?? "same"}>
              <div className="w-56 p-3">
                <ColourChoice
                  bench={bench}
                  label={`Instead of ${from}`}
                  none="same"
                  value={mapping[from] ?? null}
                  change={(to) => save(from, to)}
                />
              </div>
            </Menu>
          </span>
        ))}
      </div>
    </Line>
  );
}
