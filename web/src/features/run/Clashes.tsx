import type { Run } from "../../api/runQueries";
import { Button } from "../../ui/Button";
import type { RunHandle } from "./useRun";
import type { RunActions } from "./useRunActions";

/** Cells that somebody else changed at the same time: both texts, one of which is chosen. */
export function Clashes({ run, handle, actions }: { run: Run; handle: RunHandle; actions: RunActions }) {
  if (!handle.clashes.length) return null;
  const settle = (at: number) => handle.setClashes(handle.clashes.filter((_, other) => other !== at));
  return (
    <ul role="alert" className="mt-3 grid gap-2 border-l-2 border-risky pl-3 text-[13px]">
      {handle.clashes.map((clash, at) => (
        <li key={`${clash.row}/${clash.field}`} className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
          <span>
            Somebody else changed {clash.field} in row {run.rows.findIndex((row) => row.id === clash.row) + 1}{" "}
            to “{clash.newest || "nothing"}”. You wrote “{clash.wanted || "nothing"}”.
          </span>
          <Button
            look="quiet"
            onClick={() => {
              settle(at);
              actions.writeCells(
                [{ row: clash.row, field: clash.field, text: clash.wanted, had: clash.newest }],
                "change a cell",
              );
            }}
          >
            Use mine
          </Button>
          <Button look="quiet" onClick={() => settle(at)}>
            Keep theirs
          </Button>
        </li>
      ))}
    </ul>
  );
}
