import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { addPart, changeFit, moveInHistory, repairFit, type Addition } from "../../api/actions";
import type { Change, FitOut, Placing, Schemas } from "../../api/client";
import { fitQuery } from "../../api/queries";
import { isStale, useRevisions } from "../../ui/useRevisions";
import type { ProofSize } from "./useProof";

export type Field = Schemas["FieldValue"];

/** A save that somebody else's newer change stands against. */
export interface Conflict {
  step: string;
  changes: Change[];
  newest: Schemas["StalePiece"];
}

export interface Document {
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
  /** Gives fields of parts a value, everywhere or only here; the server knows what that means. */
  change: (step: string, fields: Field[]) => void;
  /** Adds, removes or moves parts; always everywhere. */
  act: (step: string, changes: Change[]) => void;
  /** Puts parts at rectangles, in px of the file, and may change other fields with it. */
  place: (step: string, placings: Placing[], fields?: Field[]) => void;
  add: (addition: Addition) => void;
  takeBack: (adjusted: string[]) => void;
  repair: (name: string, part?: string | null) => void;
  undo: () => void;
  redo: () => void;
}

type Save = { step: string; revision?: number } & Partial<Omit<Schemas["Edit"], "step" | "revision">>;

/** The piece of a fit and its saving. Changes save themselves; each answer brings plan, findings and proof. */
export function useDocument(
  workspace: string,
  id: string,
  proof: ProofSize,
  select: (ids: string[]) => void,
): Document {
  const queries = useQueryClient();
  const options = fitQuery(workspace, id);
  const query = useQuery(options);
  const fit = query.data;
  const [everywhere, setEverywhere] = useState(true);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const revisions = useRevisions<FitOut>({
    queryKey: options.queryKey,
    scope: `fit-${id}`,
    others: [[workspace, "wall"]],
    move: (way) => moveInHistory(workspace, fit!.piece.id, way).then(() => null),
  });
  const { inTurn, now } = revisions;
  const keep = async (next: FitOut) => {
    proof.brought(next);
    await revisions.keep(next);
  };
  const patch = useMutation({
    ...inTurn,
    mutationFn: ({ step, revision, ...wanted }: Save) =>
      changeFit(workspace, id, {
        changes: [],
        values: [],
        placings: [],
        take_back: [],
        everywhere: true,
        ...wanted,
        step,
        revision: revision ?? now().piece.revision,
        proof_width: proof.width(),
      }),
    onSuccess: keep,
    onError: (error, { step }) => {
      if (!isStale(error)) return;
      const newest = error.body as Schemas["StalePiece"];
      setConflict({ step, changes: newest.clashes.map((one) => one.change), newest });
    },
  });
  const bringIn = useMutation({
    ...inTurn,
    mutationFn: async (addition: Addition) => {
      const { revision, document } = now().piece;
      const known = new Set(document.parts.map((part) => part.id));
      const next = await addPart(workspace, id, { ...addition, revision, proof_width: proof.width() });
      return { next, added: next.piece.document.parts.find((part) => !known.has(part.id)) };
    },
    onSuccess: async ({ next, added }) => {
      await keep(next);
      if (added) select([added.id]);
    },
  });
  const mend = useMutation({
    ...inTurn,
    mutationFn: ({ name, part }: { name: string; part?: string | null }) =>
      repairFit(workspace, id, name, part),
    onSuccess: keep,
  });

  const settle = (mine: boolean) => {
    if (mine && conflict) {
      const { step, changes, newest } = conflict;
      patch.mutate({ step, changes, revision: newest.newest.revision });
    }
    setConflict(null);
    patch.reset();
    if (!mine) void queries.invalidateQueries({ queryKey: options.queryKey });
  };
  const all = [patch, bringIn, mend];
  const failed = all.find((entry) => entry.error && !isStale(entry.error));
  return {
    fit,
    error: query.error,
    saving: revisions.moving || all.some((entry) => entry.isPending),
    savedAt: revisions.savedAt,
    trouble: failed?.error ?? revisions.moveTrouble,
    forgetTrouble: () => (failed ?? { reset: revisions.forget }).reset(),
    conflict,
    settle,
    everywhere,
    setEverywhere,
    change: (step, values) => patch.mutate({ step, values, everywhere }),
    act: (step, changes) => patch.mutate({ step, changes }),
    place: (step, placings, values = []) => patch.mutate({ step, placings, values, everywhere }),
    add: (addition) => bringIn.mutate(addition),
    takeBack: (adjusted) => patch.mutate({ step: "take adjustments back", take_back: adjusted }),
    repair: (name, part) => mend.mutate({ name, part }),
    undo: () => fit?.piece.undo && revisions.undo(),
    redo: () => fit?.piece.redo && revisions.redo(),
  };
}
