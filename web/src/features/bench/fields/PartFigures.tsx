import type { DocumentPart, FitOut, PartOut, Schemas } from "../../../api/client";
import type { Box } from "../../../measure/pan";
import { duplicate, inFront, remove } from "../partActions";
import { keepsRatio, rectOf } from "../stage/parts";
import type { Bench } from "../useBench";
import { ColourChoice } from "./ColourField";
import { Figure, Line, Optional, Select } from "./Line";

const BLENDS = ["normal", "multiply", "screen", "overlay", "soft light"];
const NEW_EDGE = { width: 0.03, colour: "#ffffff" };

interface Props {
  bench: Bench;
  fit: FitOut;
  part: Exclude<DocumentPart, Schemas["GroundPart"]>;
  placed?: PartOut;
}

/** Where a part stands and how it is laid over the others, in figures. */
export function PartFigures({ bench, fit, part, placed }: Props) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const look = "min-h-6 text-measure hover:underline";
  return (
    <>
      {placed && <BoxFigures bench={bench} placed={placed} />}
      <Line term="Turn">
        <Figure
          label="Turn"
          unit="°"
          value={part.turn ?? 0}
          least={-360}
          most={360}
          change={(value) => set("turn", "turn", value)}
        />
      </Line>
      <Line term="Opacity">
        <Figure
          label="Opacity"
          unit="%"
          value={(part.opacity ?? 1) * 100}
          least={0}
          most={100}
          change={(value) => set("change the opacity", "opacity", value / 100)}
        />
      </Line>
      <Line term="Laid over">
        <Select
          label="Blend mode"
          options={BLENDS}
          value={part.blend ?? "normal"}
          choose={(value) => set("change the blend mode", "blend", value)}
        />
      </Line>
      <Optional
        label="Edge"
        on={part.edge != null}
        turn={(on) => set(on ? "add an edge" : "take the edge away", "edge", on ? NEW_EDGE : null)}
      >
        <EdgeFields bench={bench} edge={part.edge} change={(edge) => set("change the edge", "edge", edge)} />
      </Optional>
      <div className="mt-2 flex flex-wrap gap-x-3 text-[13px]">
        <button type="button" className={look} onClick={() => inFront(bench, fit, part.id, 1)}>
          Forward
        </button>
        <button type="button" className={look} onClick={() => inFront(bench, fit, part.id, -1)}>
          Back
        </button>
        <button type="button" className={look} onClick={() => duplicate(bench, fit, [part.id])}>
          Duplicate
        </button>
        <button type="button" className={look} onClick={() => remove(bench, fit, [part.id])}>
          Take away
        </button>
      </div>
    </>
  );
}

/** The die-cut edge's width and colour. */
export function EdgeFields({
  bench,
  edge,
  change,
}: {
  bench: Bench;
  edge: Schemas["Edge"] | null | undefined;
  change: (edge: Schemas["Edge"]) => void;
}) {
  const fit = bench.fit!;
  if (!edge) return null;
  const unit = Math.min(fit.width, fit.height);
  return (
    <>
      <Figure
        label="Width of the edge"
        unit="px"
        value={edge.width * unit}
        least={0.5}
        most={unit / 4}
        change={(px) => change({ ...edge, width: px / unit })}
      />
      <ColourChoice
        bench={bench}
        label="Edge"
        value={edge.colour}
        change={(colour) => colour && change({ ...edge, colour })}
      />
    </>
  );
}

function BoxFigures({ bench, placed }: { bench: Bench; placed: PartOut }) {
  const box = rectOf(placed);
  const put = (next: Box) => bench.place(`place “${placed.name}”`, [{ part: placed.part, ...next }]);
  const sized = (width: number, height: number) => put({ ...box, width, height });
  const ratio = box.width / box.height;
  const kept = keepsRatio(placed);
  return (
    <Line term="Box">
      <span className="flex flex-wrap gap-x-1.5">
        <Figure label="Left" value={box.x} change={(x) => put({ ...box, x })} />
        <span className="text-soft">·</span>
        <Figure label="Top" value={box.y} change={(y) => put({ ...box, y })} />
        <span className="basis-full" />
        <Figure
          label="Width"
          value={box.width}
          least={1}
          change={(width) => sized(width, kept ? width / ratio : box.height)}
        />
        <span className="text-soft">×</span>
        <Figure
          label="Height"
          value={box.height}
          least={1}
          change={(height) => sized(kept ? height * ratio : box.width, height)}
        />
      </span>
    </Line>
  );
}
