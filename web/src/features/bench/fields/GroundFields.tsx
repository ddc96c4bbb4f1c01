import { useQuery } from "@tanstack/react-query";

import type { FitOut, Schemas } from "../../../api/client";
import { artworkQuery, isChoosable } from "../../../api/queries";
import { ArtworkList, Menu } from "../AddPart";
import type { Bench } from "../useBench";
import { ColourChoice, ColourField } from "./ColourField";
import { GradientEditor } from "./GradientEditor";
import { Choice, Figure, Line, Optional, Percent } from "../../../ui/fields";
import { useRange } from "../../../ui/useLimits";
import { inFilePx, OptionalStroke } from "./OptionalStroke";

type Ground = Schemas["GroundPart"];
type Kind = "clear" | "solid" | "gradient" | "picture" | "pattern";

/** What lies behind everything. */
export function GroundFields({ bench, fit, part }: { bench: Bench; fit: FitOut; part: Ground }) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const artwork = useQuery(artworkQuery(bench.workspace)).data ?? [];
  const newest = (kind: string) =>
    artwork.find((entry) => isChoosable(entry) && entry.facts?.kind === kind)?.id;
  const { fill } = part;
  const choose = (kind: Kind) => {
    const next = {
      clear: null,
      solid: { kind, colour: fit.ground ?? fit.house[0] ?? "#ffffff" },
      gradient: fit.first_looks.gradient,
      picture: { kind, artwork: newest("picture") },
      pattern: { kind, artwork: newest("mark"), colour: fit.ground ?? fit.house.at(-1) },
    }[kind];
    set(kind === "clear" ? "clear the ground" : "change the ground", "fill", next);
  };
  const options: [Kind, string][] = [
    ["clear", fit.ground_given ? "chosen for it" : "clear"],
    ["solid", "colour"],
    ["gradient", "gradient"],
    ...(newest("picture") ? ([["picture", "picture"]] as [Kind, string][]) : []),
    ...(newest("mark") ? ([["pattern", "pattern"]] as [Kind, string][]) : []),
  ];
  const save = (next: unknown) => set("change the ground", "fill", next);
  return (
    <>
      <Choice label="Filled" options={options} value={fill?.kind ?? "clear"} choose={choose} />
      {(!fill || fill.kind === "solid") && (
        <ColourField
          bench={bench}
          label="Colour"
          none={fit.ground_given || !fill ? undefined : "clear"}
          value={fill?.colour ?? null}
          more={fit.sheet.grounds}
          change={(colour) => (colour ? save({ kind: "solid", colour }) : choose("clear"))}
        />
      )}
      {fill?.kind === "gradient" && <GradientEditor bench={bench} fill={fill} change={save} />}
      {fill?.kind === "picture" && <PictureFields bench={bench} fit={fit} fill={fill} save={save} />}
      {fill?.kind === "pattern" && <PatternFields bench={bench} fill={fill} save={save} />}
      <OptionalStroke
        bench={bench}
        label="Edge"
        stroke={part.edge}
        first={fit.first_looks.edge}
        whole={inFilePx(fit)}
        change={(step, edge) => set(step, "edge", edge)}
      />
    </>
  );
}

interface FillProps<T> {
  bench: Bench;
  fill: T;
  save: (fill: unknown) => void;
}

function PictureFields({ bench, fit, fill, save }: FillProps<Schemas["PictureFill"]> & { fit: FitOut }) {
  const unit = Math.min(fit.width, fit.height);
  const zooms = useRange("picture", "zoom");
  const blurs = useRange("picture", "blur", unit);
  const focal = fill.focal_point ?? { x: 0.5, y: 0.5 };
  return (
    <>
      <Line term="Picture">
        <Menu label="choose…">
          <ArtworkList bench={bench} choose={(artwork) => save({ ...fill, artwork })} />
        </Menu>
      </Line>
      <Line term="Focus">
        <Percent
          label="Focus across"
          value={focal.x}
          change={(x) => save({ ...fill, focal_point: { ...focal, x } })}
        />{" "}
        <Percent
          label="Focus down"
          value={focal.y}
          change={(y) => save({ ...fill, focal_point: { ...focal, y } })}
        />
      </Line>
      <Line term="Zoom">
        <Figure
          label="Zoom"
          unit="×"
          step={0.1}
          {...zooms}
          value={fill.zoom ?? 1}
          change={(zoom) => save({ ...fill, zoom })}
        />
      </Line>
      <Line term="Blur">
        <Figure
          label="Blur"
          unit="px"
          value={(fill.blur ?? 0) * unit}
          {...blurs}
          change={(px) => save({ ...fill, blur: px / unit })}
        />
      </Line>
      <Optional
        label="Darkened"
        on={fill.overlay != null}
        turn={(on) => save({ ...fill, overlay: on ? fit.first_looks.overlay : null })}
      >
        {fill.overlay && (
          <>
            <Percent
              label="How much"
              value={fill.overlay.opacity}
              change={(opacity) => save({ ...fill, overlay: { ...fill.overlay, opacity } })}
            />
            <ColourChoice
              bench={bench}
              label="Laid over"
              value={fill.overlay.colour}
              change={(colour) => colour && save({ ...fill, overlay: { ...fill.overlay, colour } })}
            />
          </>
        )}
      </Optional>
    </>
  );
}

function PatternFields({ bench, fill, save }: FillProps<Schemas["Pattern"]>) {
  const turns = useRange("pattern", "rotation");
  const percent = (field: "size" | "spacing" | "opacity") => (
    <Percent
      words={field}
      value={fill[field]}
      of={["pattern", field]}
      change={(value) => save({ ...fill, [field]: value })}
    />
  );
  return (
    <>
      <Line term="Mark">
        <Menu label="choose…">
          <ArtworkList bench={bench} choose={(artwork) => save({ ...fill, artwork })} />
        </Menu>
      </Line>
      <Line term="Repeat">
        <span className="flex flex-wrap gap-x-3">
          {percent("size")}
          {percent("spacing")}
          {percent("opacity")}
          <span>
            <span className="pr-1 text-[12px] text-soft">turn</span>
            <Figure
              label="Turn of the pattern"
              unit="°"
              value={fill.rotation ?? 0}
              {...turns}
              change={(rotation) => save({ ...fill, rotation })}
            />
          </span>
        </span>
      </Line>
      <ColourField
        bench={bench}
        label="Tint"
        none="as it is"
        value={fill.tint ?? null}
        change={(tint) => save({ ...fill, tint })}
      />
      <ColourField
        bench={bench}
        label="Under it"
        none="clear"
        value={fill.colour ?? null}
        change={(colour) => save({ ...fill, colour })}
      />
    </>
  );
}
