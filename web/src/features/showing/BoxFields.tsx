import type { DrawnBox } from "./ShotView";

const FIELDS = [
  ["x", "from the left"],
  ["y", "from the top"],
  ["width", "wide"],
  ["height", "high"],
] as const;
const NONE: DrawnBox = { x: 0, y: 0, width: 0, height: 0 };

/** The drawn box in figures, which can be typed as well. */
export function BoxFields({ box, change }: { box: DrawnBox | null; change: (box: DrawnBox) => void }) {
  const present = box ?? NONE;
  return (
    <div className="mt-3 flex flex-wrap gap-x-5 gap-y-2 text-[13px] text-soft">
      <span className="self-end">{box ? "The box" : "Draw a box around it, or type it:"}</span>
      {FIELDS.map(([key, label]) => (
        <label key={key}>
          {label}
          <input
            type="number"
            min={0}
            max={20000}
            value={present[key]}
            onChange={(event) => change({ ...present, [key]: Math.max(0, event.target.valueAsNumber || 0) })}
            className="figure ml-2 min-h-7 w-20 border-b border-ink bg-transparent text-ink"
          />{" "}
          px
        </label>
      ))}
    </div>
  );
}
