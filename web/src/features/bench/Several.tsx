import type { FitOut } from "../../api/client";
import type { Side } from "../../measure/aligning";
import { align, duplicate, remove, spaceEvenly } from "./partActions";
import type { Bench } from "./useBench";

const SIDES: [Side, string][] = [
  ["left", "left sides"],
  ["centre", "centres"],
  ["right", "right sides"],
  ["top", "tops"],
  ["middle", "middles"],
  ["bottom", "bottoms"],
];

/** What can be done with several parts at once. */
export function Several({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const { ids } = bench.selection;
  const look = "min-h-6 text-measure hover:underline disabled:text-soft disabled:no-underline";
  return (
    <div className="border-b border-hairline border-l-2 border-l-measure bg-sheet py-2 pr-2 pl-2.5 text-[13px]">
      <p className="font-semibold">{ids.length} parts selected</p>
      <p className="mt-1 text-soft">Line up their</p>
      <div className="flex flex-wrap gap-x-3">
        {SIDES.map(([side, words]) => (
          <button key={side} type="button" className={look} onClick={() => align(bench, fit, ids, side)}>
            {words}
          </button>
        ))}
      </div>
      <p className="mt-1 text-soft">Space them evenly</p>
      <div className="flex flex-wrap gap-x-3">
        <button
          type="button"
          className={look}
          disabled={ids.length < 3}
          onClick={() => spaceEvenly(bench, fit, ids, "x")}
        >
          across
        </button>
        <button
          type="button"
          className={look}
          disabled={ids.length < 3}
          onClick={() => spaceEvenly(bench, fit, ids, "y")}
        >
          down
        </button>
      </div>
      <div className="mt-1 flex gap-x-3">
        <button type="button" className={look} onClick={() => duplicate(bench, fit, ids)}>
          Duplicate
        </button>
        <button type="button" className={look} onClick={() => remove(bench, fit, ids)}>
          Take away
        </button>
      </div>
    </div>
  );
}
