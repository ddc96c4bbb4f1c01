import type { Bench } from "../useBench";
import { ColourChoice } from "./ColourField";
import { Figure, Optional } from "../../../ui/fields";
import { useRange } from "../../../ui/useLimits";

interface Stroke {
  width: number;
  colour: string;
}

interface Props {
  bench: Bench;
  label: "Border" | "Edge";
  stroke: Stroke | null | undefined;
  first: Stroke;
  /** What a width of 1 is in the unit shown. */
  whole: { length: number; unit: "px" | "%" };
  change: (step: string, stroke: Stroke | null) => void;
}

/** A border or an edge: there or not, its width and its colour. */
export function OptionalStroke({ bench, label, stroke, first, whole, change }: Props) {
  const name = label.toLowerCase();
  const { most } = useRange(name, "width", whole.length);
  const edit = (field: Partial<Stroke>) => stroke && change(`change the ${name}`, { ...stroke, ...field });
  const turn = (on: boolean) =>
    change(on ? `add ${name === "edge" ? "an" : "a"} ${name}` : `take the ${name} away`, on ? first : null);
  return (
    <Optional label={label} on={stroke != null} turn={turn}>
      {stroke && (
        <>
          <Figure
            label={`Width of the ${name}`}
            unit={whole.unit}
            value={stroke.width * whole.length}
            least={0.5}
            most={most}
            change={(width) => edit({ width: width / whole.length })}
          />
          <ColourChoice
            bench={bench}
            label={label}
            value={stroke.colour}
            change={(colour) => colour && edit({ colour })}
          />
        </>
      )}
    </Optional>
  );
}

/** A border's width is a share of its part. */
export const OF_THE_PART = { length: 100, unit: "%" } as const;

/** An edge's width is a share of the picture's short side, shown in px of the file. */
export const inFilePx = (fit: { width: number; height: number }) =>
  ({ length: Math.min(fit.width, fit.height), unit: "px" }) as const;
