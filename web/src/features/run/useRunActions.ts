import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
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

  const mutations = [make, stop, deliver, read, byHand];
  const deeds = useDeeds({
    change: handle.change.mutate,
    paste: handle.paste.mutate,
    make: make.mutate,
    stop: stop.mutate,
    deliver: deliver.mutate,
    read: read.mutate,
    byHand: byHand.mutate,
  });
  return {
    ...deeds,
    deeds,
    trouble: mutations.find((one) => one.error)?.error ?? null,
    forget: () => mutations.forEach((one) => one.reset()),
    making: make.isPending,
    delivering: deliver.isPending,
    reading: read.isPending,
    came: read.data ?? null,
  };
}

export type RunActions = ReturnType<typeof useRunActions>;
export type RowDeeds = RunActions["deeds"];

interface Mutates {
  change: (wanted: { changes: RowChange[]; step: string }) => void;
  paste: (wanted: { rows: string[]; fields: string[]; text: string }) => void;
  make: (rows: string[] | null) => void;
  stop: () => void;
  deliver: (wanted: { rows: string[] | null; changed: boolean }) => void;
  read: (file: File) => void;
  byHand: (wanted: { row: string; placement: string }) => void;
}

/** What can be done to rows; the same object all the time, so that no row is drawn anew for its sake. */
function useDeeds(now: Mutates) {
  const [mutates] = useState(now); // what useMutation gives never changes
  return useMemo(() => deedsOf(mutates), [mutates]);
}

function deedsOf(mutates: Mutates) {
  const change = (changes: RowChange[], step: string) => {
    if (changes.length) mutates.change({ changes, step });
  };
  return {
    writeCells: (cells: CellChange[], step: string) =>
      change(
        cells.map((cell) => ({ act: "cell", ...cell })),
        step,
      ),
    paste: (rows: string[], fields: string[], text: string) => text && mutates.paste({ rows, fields, text }),
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
    make: (rows: string[] | null) => mutates.make(rows),
    stop: () => mutates.stop(),
    deliver: (rows: string[] | null, changed: boolean) => mutates.deliver({ rows, changed }),
    read: (file: File) => mutates.read(file),
    openByHand: (row: string, placement: string) => mutates.byHand({ row, placement }),
  };
}

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
