import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";

import { changeFit, moveInHistory, repairFit } from "../../api/actions";
import { Failure, type Change, type FitOut, type Schemas } from "../../api/client";
import { fitQuery } from "../../api/queries";

export interface Field {
  part: string;
  field: string;
  value: unknown;
}

/** A save that somebody else's newer change stands against. */
export interface Conflict {
  step: string;
  changes: Change[];
  newest: Schemas["StalePiece"];
}

export interface Bench {
  fit: FitOut | undefined;
  error: Error | null;
  saving: boolean;
  savedAt: Date | null;
  trouble: Error | null;
  forgetTrouble: () => void;
  conflict: Conflict | null;
  settle: (mine: boolean) => void;
  everywhere: boolean;
  setEverywhere: (value: boolean) => void;
  change: (step: string, fields: Field[]) => void;
  takeBack: (adjusted: string[]) => void;
  repair: (name: string) => void;
  undo: () => void;
  redo: () => void;
}

interface Save {
  step: string;
  changes: Change[];
  revision?: number;
}

/** Everything the bench does to one fit. Changes save themselves; each answer brings plan, findings and proof. */
export function useBench(workspace: string, id: string): Bench {
  const queries = useQueryClient();
  const options = fitQuery(workspace, id);
  const query = useQuery(options);
  const [everywhere, setEverywhere] = useState(false);
  const [savedAt, setSavedAt] = useState<Date | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const fit = query.data;

  const keep = (next: FitOut) => {
    queries.setQueryData(options.queryKey, next);
    setSavedAt(new Date());
    void queries.invalidateQueries({ queryKey: [workspace, "wall"] });
  };
  const patch = useMutation({
    scope: { id: `fit-${id}` }, // one after the other, so that each is made on the revision before it
    mutationFn: ({ step, changes, revision }: Save) => {
      const newest = queries.getQueryData(options.queryKey);
      return changeFit(workspace, id, revision ?? newest!.piece.revision, step, changes);
    },
    onSuccess: keep,
    onError: (error, { step, changes }) => {
      if (error instanceof Failure && error.status === 409) {
        setConflict({ step, changes, newest: error.body as Schemas["StalePiece"] });
      }
    },
  });
  const mend = useMutation({ mutationFn: (name: string) => repairFit(workspace, id, name), onSuccess: keep });
  const history = useMutation({
    mutationFn: (way: "undo" | "redo") => moveInHistory(workspace, fit!.piece.id, way),
    onSuccess: () => {
      setSavedAt(new Date());
      void queries.invalidateQueries({ queryKey: [workspace] });
    },
  });

  const change = useCallback(
    (step: string, fields: Field[]) => {
      const placement = everywhere || !fit ? null : fit.placement;
      const changes = fields.map((field) => ({ ...field, placement, reset: false }) as Change);
      patch.mutate({ step, changes });
    },
    [everywhere, fit, patch],
  );
  const takeBack = (adjusted: string[]) => {
    const changes = adjusted.map((entry) => {
      const [part = "", field = ""] = entry.split(".");
      return { part, field, value: null, placement: fit!.placement, reset: true } as Change;
    });
    patch.mutate({ step: "take adjustments back", changes });
  };
  const settle = (mine: boolean) => {
    if (mine && conflict) patch.mutate({ ...conflict, revision: conflict.newest.newest.revision });
    setConflict(null);
    patch.reset();
    if (!mine) void queries.invalidateQueries({ queryKey: options.queryKey });
  };
  const undo = useCallback(() => fit?.piece.undo && history.mutate("undo"), [fit, history]);
  const redo = useCallback(() => fit?.piece.redo && history.mutate("redo"), [fit, history]);
  useHistoryKeys(undo, redo);

  const failed = [patch, mend, history].find((entry) => entry.error && !isStale(entry.error));
  return {
    fit,
    error: query.error,
    saving: patch.isPending || mend.isPending || history.isPending,
    savedAt,
    trouble: failed?.error ?? null,
    forgetTrouble: () => failed?.reset(),
    conflict,
    settle,
    everywhere,
    setEverywhere,
    change,
    takeBack,
    repair: (name) => mend.mutate(name),
    undo,
    redo,
  };
}

const isStale = (error: Error) => error instanceof Failure && error.status === 409;

function useHistoryKeys(undo: () => void, redo: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.matches("input, textarea, select");
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [undo, redo]);
}
