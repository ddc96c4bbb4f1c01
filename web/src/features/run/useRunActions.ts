import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import {
  deliverRows,
  fitOfRow,
  makeFiles,
  readTable,
  runQuery,
  runStateQuery,
  stopFiles,
  type Entry,
  type RowChange,
  type RunState,
} from "../../api/runQueries";
import { plural } from "../../measure/words";
import type { RunHandle } from "./useRun";

type CellChange = { row: string; field: string; text: string; had: string };

/** What people do to the rows of a run. */
export function useRunActions(workspace: string, piece: string, handle: RunHandle) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const settle = (state: RunState) => {
    queries.setQueryData(runStateQuery(workspace, piece).queryKey, state);
    void queries.invalidateQueries({ queryKey: runQuery(workspace, piece).queryKey });
  };
  const make = useMutation({
    mutationFn: (rows: string[] | null) => makeFiles(workspace, piece, rows),
    onSuccess: settle,
  });
  const stop = useMutation({ mutationFn: () => stopFiles(workspace, piece), onSuccess: settle });
  const deliver = useMutation({
    mutationFn: ({ rows, changed }: { rows: string[] | null; changed: boolean }) =>
      deliverRows(workspace, piece, rows, changed),
    onSuccess: () => void navigate(`/w/${workspace}/deliveries`),
  });
  const read = useMutation({
    mutationFn: (file: File) => readTable(workspace, piece, file),
    onSuccess: handle.takeChanged,
  });
  const byHand = useMutation({
    mutationFn: ({ row, placement }: { row: string; placement: string }) =>
      fitOfRow(workspace, piece, row, placement),
    onSuccess: (fit) => void navigate(`/w/${workspace}/fits/${fit}`),
  });

  const change = (changes: RowChange[], step: string) => {
    if (changes.length) handle.change.mutate({ changes, step });
  };
  const mutations = [make, stop, deliver, read, byHand];
  return {
    trouble: mutations.find((one) => one.error)?.error ?? null,
    forget: () => mutations.forEach((one) => one.reset()),
    making: make.isPending,
    delivering: deliver.isPending,
    reading: read.isPending,
    came: read.data ?? null,
    writeCells: (cells: CellChange[], step: string) =>
      change(
        cells.map((cell) => ({ act: "cell", ...cell })),
        step,
      ),
    paste: (rows: string[], fields: string[], text: string) =>
      text && handle.paste.mutate({ rows, fields, text }),
    addRow: (before: string | null) =>
      change([{ act: "add", entry: { ...EMPTY, id: newId() }, before }], "add a row"),
    copyRow: (row: Entry) =>
      change([{ act: "add", entry: { ...row, id: newId() }, before: null }], "copy a row"),
    putAway: (rows: string[], on: boolean) =>
      change(
        rows.map((row) => ({ act: "put away", row, on })),
        on ? `put ${plural(rows.length, "row", "rows")} away` : "bring back",
      ),
    remove: (rows: string[]) =>
      change(
        rows.map((row) => ({ act: "remove", row, had: null })),
        `remove ${plural(rows.length, "row", "rows")}`,
      ),
    followAgain: (row: Entry) => change(followingAgain(row), "follow the piece again"),
    make: (rows: string[] | null) => make.mutate(rows),
    stop: () => stop.mutate(),
    deliver: (rows: string[] | null, changed: boolean) => deliver.mutate({ rows, changed }),
    read: (file: File) => read.mutate(file),
    openByHand: (row: string, placement: string) => byHand.mutate({ row, placement }),
  };
}

export type RunActions = ReturnType<typeof useRunActions>;

const EMPTY = { cells: {}, differences: {}, adjustments: {}, put_away: false };

function newId(): string {
  return crypto.randomUUID().replaceAll("-", "").slice(0, 12);
}

/** What takes back everything that differs by hand in a row. */
function followingAgain(row: Entry): RowChange[] {
  const layers: [string, Entry["differences"]][] = [
    ["", row.differences],
    ...Object.entries(row.adjustments ?? {}),
  ];
  return layers.flatMap(([placement, layer]) =>
    Object.entries(layer ?? {}).flatMap(([part, fields]) =>
      Object.keys(fields).map((field): RowChange => ({
        act: "differ",
        row: row.id,
        placement,
        part,
        field,
        now: { given: false, value: null },
        had: null,
      })),
    ),
  );
}
