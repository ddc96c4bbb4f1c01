import { useMutation, useQueryClient, type QueryKey } from "@tanstack/react-query";
import { useCallback, useState } from "react";

import { Failure } from "../api/client";
import { useHistoryKeys } from "./useHistoryKeys";

interface Options<T> {
  queryKey: QueryKey;
  /** Saves of one document follow one another, each on the revision before it. */
  scope: string;
  /** What else the answer to a save makes old. */
  others: QueryKey[];
  move: (way: "undo" | "redo") => Promise<T | null>;
}

export interface Revisions<T> {
  now: () => T;
  keep: (next: T) => Promise<void>;
  inTurn: { scope: { id: string } };
  savedAt: Date | null;
  undo: () => void;
  redo: () => void;
  moving: boolean;
  moveTrouble: Error | null;
  forget: () => void;
}

/** What the bench and the preparation do alike: keep the newest answer, and walk back and forth in the history. */
export function useRevisions<T>({ queryKey, scope, others, move }: Options<T>): Revisions<T> {
  const queries = useQueryClient();
  const [savedAt, setSavedAt] = useState<Date | null>(null);
  const keep = async (next: T) => {
    await queries.cancelQueries({ queryKey }); // one on its way may bring the state before this
    queries.setQueryData(queryKey, next);
    setSavedAt(new Date());
    for (const other of others) void queries.invalidateQueries({ queryKey: other });
  };
  const inTurn = { scope: { id: scope } };
  const history = useMutation({
    ...inTurn,
    mutationFn: move,
    onSuccess: async (next) => {
      if (next) return keep(next);
      setSavedAt(new Date());
      await queries.invalidateQueries({ queryKey: [queryKey[0]] });
    },
  });
  const { mutate } = history;
  const undo = useCallback(() => mutate("undo"), [mutate]);
  const redo = useCallback(() => mutate("redo"), [mutate]);
  useHistoryKeys(undo, redo);
  return {
    now: () => queries.getQueryData<T>(queryKey)!,
    keep,
    inTurn,
    savedAt,
    undo,
    redo,
    moving: history.isPending,
    moveTrouble: history.error,
    forget: history.reset,
  };
}

/** Whether somebody else was faster. */
export const isStale = (error: unknown): error is Failure => error instanceof Failure && error.status === 409;
