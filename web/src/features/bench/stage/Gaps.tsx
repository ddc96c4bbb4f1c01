import { rounded } from "../../../measure/boxes";
import type { Gap } from "../../../measure/neighbours";

const LEAST_SHOWN_PX = 16; // on the screen: below that a line with a figure would be all figure

/** Free distances as dimension lines with their figures, in px of the file. */
export function Gaps({ gaps, scale }: { gaps: Gap[]; scale: number }) {
  return gaps
    .filter((gap) => gap.length * scale >= 2)
    .map((gap) => {
      const level = gap.axis === "x";
      const length = gap.length * scale;
      return (
        <span
          key={`${gap.axis}${gap.x}${gap.y}`}
          title={`to ${gap.to}`}
          className={`pointer-events-none absolute border-measure ${level ? "border-t" : "border-l"}`}
          style={{
            left: gap.x * scale,
            top: gap.y * scale,
            width: level ? length : undefined,
            height: level ? undefined : length,
          }}
        >
          {length >= LEAST_SHOWN_PX && (
            <span
              className={`figure absolute -translate-x-1/2 -translate-y-1/2 bg-sheet px-1 text-measure ${level ? "left-1/2" : "top-1/2"}`}
            >
              {rounded(gap.length, 1)}
            </span>
          )}
        </span>
      );
    });
}
