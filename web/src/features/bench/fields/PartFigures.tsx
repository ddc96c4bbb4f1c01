import type { DocumentPart, FitOut, PartOut, Schemas } from "../../../api/client";
import type { Box } from "../../../measure/pan";
import { duplicate, inFront, remove } from "../partActions";
import { keepsRatio, rectOf } from "../stage/parts";
import type { Bench } from "../useBench";
import { Figure, Line, Percent, Select } from "../../../ui/fields";
import { useLimits, useRange } from "../../../ui/useLimits";
import { inFilePx, OptionalStroke } from "./OptionalStroke";

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
  const turns = useRange("artwork", "rotation");
  const { blends } = useLimits();
  const look = "min-h-6 text-measure hover:underline";
  return (
    <>
      {placed && <BoxFigures bench={bench} placed={placed} />}
      <Line term="Turn">
        <Figure
          label="Turn"
          unit="°"
          value={part.rotation ?? 0}
          {...turns}
          change={(value) => set("turn", "rotation", value)}
        />
      </Line>
      <Line term="Opacity">
        <Percent
          label="Opacity"
          value={part.opacity ?? 1}
          change={(value) => set("change the opacity", "opacity", value)}
        />
      </Line>
      <Line term="Laid over">
        <Select
          label="Blend mode"
          options={blends}
          value={part.blend ?? "normal"}
          choose={(value) => set("change the blend mode", "blend", value)}
        />
      </Line>
      <OptionalStroke
        bench={bench}
        label="Edge"
        stroke={part.edge}
        first={fit.first_looks.edge}
        whole={inFilePx(fit)}
        change={(step, edge) => set(step, "edge", edge)}
      />
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
