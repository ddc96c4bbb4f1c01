import { ticks } from "../measure/ruler";

const THICK_PX = 14;

/** A ruler along a side of the proof, in px of the file. */
export function Ruler({ length, scale, side }: { length: number; scale: number; side: "top" | "left" }) {
  const long = length * scale;
  const top = side === "top";
  return (
    <svg
      aria-hidden
      width={top ? long : THICK_PX}
      height={top ? THICK_PX : long}
      className="block shrink-0 overflow-visible text-soft"
    >
      {ticks(length, scale).map(({ at, major }) => {
        const place = at * scale;
        const from = THICK_PX - (major ? 7 : 3);
        return top ? (
          <line key={at} x1={place} x2={place} y1={from} y2={THICK_PX} stroke="currentColor" />
        ) : (
          <line key={at} y1={place} y2={place} x1={from} x2={THICK_PX} stroke="currentColor" />
        );
      })}
    </svg>
  );
}
