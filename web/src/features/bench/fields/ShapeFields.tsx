import type { FitOut, Schemas } from "../../../api/client";
import type { Bench } from "../useBench";
import { ColourField } from "./ColourField";
import { GradientEditor } from "./GradientEditor";
import { Choice, Line, Select } from "../../../ui/fields";
import { OF_THE_PART, OptionalStroke } from "./OptionalStroke";

type Shape = Schemas["ShapePart"];

/** A shape: which one, what fills it, its border. */
export function ShapeFields({ bench, fit, part }: { bench: Bench; fit: FitOut; part: Shape }) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const { fill } = part;
  return (
    <>
      <Line term="Shape">
        <Select
          label="Shape"
          options={fit.shapes}
          value={part.shape}
          choose={(shape) => set("change the shape", "shape", shape)}
        />
      </Line>
      <Choice
        label="Filled"
        options={[
          ["none", "not"],
          ["solid", "colour"],
          ["gradient", "gradient"],
        ]}
        value={fill?.kind ?? "none"}
        choose={(kind) => {
          const next = {
            none: null,
            solid: { kind: "solid", colour: fit.first_looks.colour },
            gradient: fit.first_looks.gradient,
          }[kind];
          set("fill the shape", "fill", next);
        }}
      />
      {fill?.kind === "solid" && (
        <ColourField
          bench={bench}
          label="Colour"
          value={fill.colour}
          change={(colour) => colour && set("colour the shape", "fill", { ...fill, colour })}
        />
      )}
      {fill?.kind === "gradient" && (
        <GradientEditor
          bench={bench}
          fill={fill}
          change={(next) => set("change the gradient", "fill", next)}
        />
      )}
      <OptionalStroke
        bench={bench}
        label="Border"
        stroke={part.border}
        first={fit.first_looks.border}
        whole={OF_THE_PART}
        change={(step, border) => set(step, "border", border)}
      />
    </>
  );
}
