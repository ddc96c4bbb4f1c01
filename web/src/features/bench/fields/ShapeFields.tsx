import type { FitOut, Schemas } from "../../../api/client";
import type { Bench } from "../useBench";
import { BorderFields } from "./ArtworkFields";
import { ColourField } from "./ColourField";
import { GradientEditor, newGradient } from "./GradientEditor";
import { Choice, Line, Optional, Select } from "./Line";

type Shape = Schemas["ShapePart"];
const NEW_BORDER = { width: 0.04, colour: "#111111" };

/** A shape: which one, what fills it, its border. */
export function ShapeFields({ bench, fit, part }: { bench: Bench; fit: FitOut; part: Shape }) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const { fill } = part;
  const first = fit.house[0] ?? "#808080";
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
            solid: { kind: "solid", colour: first },
            gradient: newGradient(fit.house),
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
      <Optional
        label="Border"
        on={part.border != null}
        turn={(on) => set(on ? "add a border" : "take the border away", "border", on ? NEW_BORDER : null)}
      >
        <BorderFields
          bench={bench}
          border={part.border}
          change={(border) => set("change the border", "border", border)}
        />
      </Optional>
    </>
  );
}
