import { filesToCome, type Run } from "../../api/runQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { NamingField } from "./NamingField";
import type { RunActions } from "./useRunActions";

interface Props {
  workspace: string;
  run: Run;
  actions: RunActions;
  /** The rows that are chosen; none for all. */
  chosen: string[];
}

/** Files of rows: made by workers with figures, stopped, gone on with, handed over. */
export function Files({ workspace, run, actions, chosen }: Props) {
  const { wanted, done, failed } = run.progress;
  const making = filesToCome(run) > 0;
  const rows = chosen.length ? chosen : null;
  const of = chosen.length ? ` of ${plural(chosen.length, "row", "rows")}` : "";
  return (
    <div className="ml-auto flex flex-wrap items-center justify-end gap-x-4 gap-y-2">
      {run.may_change && <NamingField workspace={workspace} run={run} />}
      {chosen.length > 0 && (
        <>
          <Button look="bare" onClick={() => actions.putAway(chosen, true)}>
            Put {plural(chosen.length, "row", "rows")} away
          </Button>
          <Button look="bare" onClick={() => actions.remove(chosen)}>
            Remove
          </Button>
        </>
      )}
      {making ? (
        <>
          <div
            role="progressbar"
            aria-label="Files made"
            aria-valuemin={0}
            aria-valuemax={wanted}
            aria-valuenow={done + failed}
            className="h-1 w-44 bg-gauge"
          >
            <div className="h-full bg-measure" style={{ width: `${(100 * (done + failed)) / wanted}%` }} />
          </div>
          <Button onClick={actions.stop}>Stop</Button>
        </>
      ) : (
        <>
          {run.may_deliver && done > 0 && (
            <Button disabled={actions.delivering} onClick={() => actions.deliver(rows, !chosen.length)}>
              {chosen.length ? `Deliver ${plural(chosen.length, "row", "rows")}` : "Deliver what changed"}
            </Button>
          )}
          <Button look="next" disabled={actions.making} onClick={() => actions.make(rows)}>
            Make the files{of}
          </Button>
        </>
      )}
      {failed > 0 && (
        <details className="w-full text-[13px] text-refused">
          <summary className="min-h-6">{plural(failed, "file was", "files were")} not made</summary>
          <ul className="pl-4">
            {run.progress.failures.map((one) => (
              <li key={`${one.row}/${one.placement}`}>
                Row {one.number}: {one.words}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
