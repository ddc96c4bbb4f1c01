import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";

import { addPart, changeFit, moveInHistory, repairFit, type Addition } from "../../api/actions";
import { Failure, type Change, type FitOut, type Placing, type Schemas } from "../../api/client";
import { fitQuery, proofUrl } from "../../api/queries";
import { useHistoryKeys } from "../../ui/useHistoryKeys";
import { useSelection, type Selection } from "./useSelection";

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
  workspace: string;
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
  selection: Selection;
  /** Gives fields of parts a value, everywhere or only here. */
  change: (step: string, fields: Field[]) => void;
  /** Adds, removes or moves parts; always everywhere. */
  act: (step: string, changes: Partial<Change>[]) => void;
  /** Puts parts at rectangles, in px of the file, and may change other fields with it. */
  place: (step: string, placings: Omit<Placing, "placement">[], fields?: Field[]) => void;
  add: (addition: Addition) => void;
  takeBack: (adjusted: string[]) => void;
  repair: (name: string, part?: string | null) => void;
  undo: () => void;
  redo: () => void;
  /** Who waits for a colour that is clicked on the proof. */
  picking: ((colour: string) => void) | null;
  pick: (take: ((colour: string) => void) | null) => void;
  /** How wide the proof is drawn; each change brings the new one at this width. */
  drawProofAt: (width: number) => void;
  proofAt: (width: number) => string;
}

interface Save {
  step: string;
  changes: Change[];
  placings?: Placing[];
  revision?: number;
}

const PLAIN: Change = {
  part: "",
  act: "set",
  field: "",
  value: null,
  placement: null,
  reset: false,
  at: null,
};

/** Everything the bench does to one fit. Changes save themselves; each answer brings plan, findings and proof. */
export function useBench(workspace: string, id: string): Bench {
  const queries = useQueryClient();
  const options = fitQuery(workspace, id);
  const query = useQuery(options);
  const [everywhere, setEverywhere] = useState(true);
  const [savedAt, setSavedAt] = useState<Date | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const proofWidth = useRef(900);
  const [brought, setBrought] = useState<{ key: string; url: string } | null>(null);
  const [picking, setPicking] = useState<((colour: string) => void) | null>(null);
  const fit = query.data;
  const selection = useSelection(fit);

  const drawProofAt = useCallback((width: number) => {
    proofWidth.current = width;
  }, []);
  const revision = () => queries.getQueryData(options.queryKey)!.piece.revision;
  const keep = async (next: FitOut) => {
    await queries.cancelQueries({ queryKey: options.queryKey }); // one on its way may bring the state before this
    if (next.proof) setBrought({ key: next.key, url: next.proof });
    queries.setQueryData(options.queryKey, next);
    setSavedAt(new Date());
    void queries.invalidateQueries({ queryKey: [workspace, "wall"] });
  };
  const inTurn = { scope: { id: `fit-${id}` } }; // one after the other, each on the revision before it
  const patch = useMutation({
    ...inTurn,
    mutationFn: ({ step, changes, placings = [], revision: base }: Save) =>
      changeFit(workspace, id, {
        revision: base ?? revision(),
        step,
        changes,
        placings,
        proof_width: Math.round(proofWidth.current),
      }),
    onSuccess: keep,
    onError: (error, { step, changes }) => {
      if (error instanceof Failure && error.status === 409) {
        const newest = error.body as Schemas["StalePiece"];
        const wanted =
          changes.length > 0 ? changes : (newest.clashes as { change: Change }[]).map((one) => one.change);
        setConflict({ step, changes: wanted, newest });
      }
    },
  });
  const bringIn = useMutation({
    ...inTurn,
    mutationFn: async (addition: Addition) => {
      const known = new Set(queries.getQueryData(options.queryKey)!.piece.document.parts.map(({ id }) => id));
      const next = await addPart(workspace, id, {
        ...addition,
        revision: revision(),
        proof_width: Math.round(proofWidth.current),
      });
      return { next, added: next.piece.document.parts.find((part) => !known.has(part.id)) };
    },
    onSuccess: async ({ next, added }) => {
      await keep(next);
      if (added) selection.select([added.id]);
    },
  });
  const mend = useMutation({
    ...inTurn,
    mutationFn: ({ name, part }: { name: string; part?: string | null }) =>
      repairFit(workspace, id, name, part),
    onSuccess: keep,
  });
  const history = useMutation({
    ...inTurn,
    mutationFn: (way: "undo" | "redo") => moveInHistory(workspace, fit!.piece.id, way),
    onSuccess: () => {
      setSavedAt(new Date());
      return queries.invalidateQueries({ queryKey: [workspace] });
    },
  });

  const here = everywhere || !fit ? null : fit.placement;
  const change = (step: string, fields: Field[]) =>
    patch.mutate({ step, changes: scoped(fit, fields, here) });
  const act = (step: string, changes: Partial<Change>[]) =>
    patch.mutate({ step, changes: changes.map((one) => ({ ...PLAIN, ...one })) });
  const place: Bench["place"] = (step, placings, fields = []) => {
    const moved = placings.flatMap(({ part }) =>
      ["stands", "beyond"].map((field) => ({ part, field, value: null })),
    );
    const resets = scoped(fit, moved, here).filter((one) => one.reset);
    patch.mutate({
      step,
      changes: [...resets, ...scoped(fit, fields, here)],
      placings: placings.map((one) => ({ ...one, placement: here })),
    });
  };
  const takeBack = (adjusted: string[]) => {
    const changes = adjusted.map((entry) => {
      const [part = "", field = ""] = entry.split(".");
      return { ...PLAIN, part, field, placement: fit!.placement, reset: true };
    });
    patch.mutate({ step: "take adjustments back", changes });
  };
  const settle = (mine: boolean) => {
    if (mine && conflict) {
      patch.mutate({
        step: conflict.step,
        changes: conflict.changes,
        revision: conflict.newest.newest.revision,
      });
    }
    setConflict(null);
    patch.reset();
    if (!mine) void queries.invalidateQueries({ queryKey: options.queryKey });
  };
  const undo = useCallback(() => fit?.piece.undo && history.mutate("undo"), [fit, history]);
  const redo = useCallback(() => fit?.piece.redo && history.mutate("redo"), [fit, history]);
  useHistoryKeys(undo, redo);

  const all = [patch, bringIn, mend, history];
  const failed = all.find((entry) => entry.error && !isStale(entry.error));
  return {
    workspace,
    fit,
    error: query.error,
    saving: all.some((entry) => entry.isPending),
    savedAt,
    trouble: failed?.error ?? null,
    forgetTrouble: () => failed?.reset(),
    conflict,
    settle,
    everywhere,
    setEverywhere,
    selection,
    change,
    act,
    place,
    add: (addition) => bringIn.mutate(addition),
    takeBack,
    repair: (name, part) => mend.mutate({ name, part }),
    undo,
    redo,
    picking,
    pick: (take) => setPicking(() => take),
    drawProofAt,
    proofAt: (width) =>
      brought && brought.key === fit?.key ? brought.url : proofUrl(workspace, id, fit!.key, width),
  };
}

/** Changes everywhere or only here; what is changed everywhere must not stay different here. */
function scoped(fit: FitOut | undefined, fields: Field[], here: string | null): Change[] {
  const set = fields.map((field) => ({ ...PLAIN, ...field, placement: here }));
  if (here || !fit) return set;
  const own = fields.filter(({ part, field }) => fit.adjusted.includes(`${part}.${field}`));
  return [
    ...own.map(({ part, field }) => ({ ...PLAIN, part, field, placement: fit.placement, reset: true })),
    ...set,
  ];
}

const isStale = (error: Error) => error instanceof Failure && error.status === 409;
