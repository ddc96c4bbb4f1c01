import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";

import {
  changeRows,
  pasteCells,
  redoRows,
  runQuery,
  runStateQuery,
  undoRows,
  type RowChange,
  type RowsChanged,
  type RunState,
  type Run,
} from "../../api/runQueries";
import { withChanges } from "./withChanges";

/** What two people wanted in one cell. */
export interface Clash {
  row: string;
  field: string;
  wanted: string;
  newest: string;
}

/** A run with ways to change it; what is typed is seen at once, and saved behind it. */
export function useRun(workspace: string, piece: string) {
  const queries = useQueryClient();
  const key = runQuery(workspace, piece).queryKey;
  const found = useQuery(runQuery(workspace, piece));
  const state = useQuery({ ...runStateQuery(workspace, piece), enabled: Boolean(found.data) });
  const [clashes, setClashes] = useState<Clash[]>([]);
  const take = useCallback(
    (run: Run) => {
      queries.setQueryData(key, withChanges(run, waitingChanges(queries, piece)));
      void queries.invalidateQueries({ queryKey: runStateQuery(workspace, piece).queryKey });
    },
    [queries, key, workspace, piece],
  );
  const takeChanged = useCallback(
    (changed: RowsChanged) => {
      take(changed.run);
      setClashes(clashesOf(changed));
    },
    [take],
  );

  const change = useMutation({
    mutationKey: [CHANGING, piece],
    mutationFn: ({ changes, step }: { changes: RowChange[]; step: string }) =>
      changeRows(workspace, piece, changes, step, crypto.randomUUID()),
    scope: { id: `run ${piece}` }, // one after the other, in the order in which they were typed
    onMutate: ({ changes }) => {
      const now = queries.getQueryData(key);
      if (now) queries.setQueryData(key, withChanges(now, changes));
    },
    onSuccess: takeChanged,
    onError: () => void queries.invalidateQueries({ queryKey: key }),
  });
  const paste = useMutation({
    mutationFn: ({ rows, fields, text }: { rows: string[]; fields: string[]; text: string }) =>
      pasteCells(workspace, piece, rows, fields, text),
    scope: { id: `run ${piece}` },
    onSuccess: takeChanged,
  });
  const scope = { id: `run ${piece}` };
  const undo = useMutation({ mutationFn: () => undoRows(workspace, piece), scope, onSuccess: take });
  const redo = useMutation({ mutationFn: () => redoRows(workspace, piece), scope, onSuccess: take });

  const newer = state.data && found.data && differs(state.data, found.data);
  const busy = change.isPending || paste.isPending || undo.isPending || redo.isPending;
  useEffect(() => {
    if (newer && !busy) void queries.invalidateQueries({ queryKey: key });
  }, [newer, busy, queries, key]);

  const trouble = change.error ?? paste.error ?? undo.error ?? redo.error;
  const forget = () => [change, paste, undo, redo].forEach((one) => one.reset());
  const run = useMemo(
    () => (found.data && state.data && !newer ? { ...found.data, ...state.data } : found.data),
    [found.data, state.data, newer],
  );
  return {
    run,
    error: found.error,
    change,
    paste,
    undo,
    redo,
    busy,
    trouble,
    forget,
    clashes,
    setClashes,
    take,
    takeChanged,
  };
}

const CHANGING = "changing rows";

/** What was typed and is not on its way yet: an answer to what was typed before it does not have it. */
function waitingChanges(queries: QueryClient, piece: string): RowChange[] {
  const waiting = queries.getMutationCache().findAll({
    mutationKey: [CHANGING, piece],
    predicate: (one) => one.state.status === "pending" && one.state.isPaused,
  });
  return waiting.flatMap((one) => (one.state.variables as { changes: RowChange[] }).changes);
}

export type RunHandle = ReturnType<typeof useRun>;

function differs(state: RunState, run: Run): boolean {
  return (
    state.revision !== run.revision ||
    state.piece_revision !== run.piece_revision ||
    state.artwork !== run.artwork
  );
}

function clashesOf(changed: RowsChanged): Clash[] {
  return (changed.clashes ?? []).flatMap(({ change, newest }) =>
    change.act === "cell"
      ? [{ row: change.row, field: change.field, wanted: change.text, newest: String(newest) }]
      : [],
  );
}
