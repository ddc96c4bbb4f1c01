import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import {
  addPart,
  changeFit,
  composeFor,
  letMove,
  moveInHistory,
  prepareHere,
  repairFit,
  type Addition,
} from "../../api/actions";
import { type Change, type FitOut, type Placing, type Schemas } from "../../api/client";
import { fitQuery } from "../../api/queries";
import { redoRows, undoRows } from "../../api/runQueries";
import type { Sending } from "../../ui/useOutbox";
import { isTyping } from "../../ui/isTyping";
import { isStale, useRevisions, type Revisions } from "../../ui/useRevisions";
import { withUnsaved } from "./unsaved";
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
  outbox: Sending<unknown>;
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
  /** Lets the parts move by calculation, calm (0) to lively (1); null lets them stand still. */
  move: (liveliness: number | null) => void;
  /** Lets places of other shapes follow this one by calculation, or lets all keep to the boxes of the piece. */
  compose: (on: boolean) => void;
  /** Lets a version of a part's mark with one further step of preparation stand in this place alone. */
  prepare: (step: string, part: string) => void;
  undo: () => void;
  redo: () => void;
}

type Save =
  | { kind: "change"; step: string; edit: Partial<Schemas["Edit"]> }
  | { kind: "add"; addition: Addition }
  | { kind: "repair"; name: string; part?: string | null }
  | { kind: "motion"; liveliness: number | null }
  | { kind: "compose"; on: boolean }
  | { kind: "prepare"; step: string; part: string };

const LOOK_EVERY_MS = 60;

/** New words are there to be typed over, once their field is, unless somebody has gone on to another field. */
function typeThere(words: string, looks = 12): void {
  const field = document.querySelector<HTMLTextAreaElement>('textarea[aria-label="Words"]');
  if (isTyping(document.activeElement) || looks === 0) return;
  if (field?.value !== words) return void setTimeout(typeThere, LOOK_EVERY_MS, words, looks - 1);
  field.focus();
  field.select();
}

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
  const [everywhere, setEverywhere] = useState(true);
  const [conflict, setConflict] = useState<Conflict | null>(null);

  const send = async (save: Save, revision: number, key: string): Promise<FitOut> => {
    const drawn = { revision, key, proof_width: proof.width() };
    if (save.kind === "repair") return repairFit(workspace, id, save.name, save.part);
    if (save.kind === "compose") return composeFor(workspace, id, save.on);
    if (save.kind === "motion") return letMove(workspace, id, save.liveliness);
    if (save.kind === "prepare") return prepareHere(workspace, id, save.step, save.part);
    if (save.kind === "add") {
      const known = new Set(revisions.now().piece.document.parts.map((part) => part.id));
      const next = await addPart(workspace, id, { ...save.addition, ...drawn });
      const added = next.piece.document.parts.find((part) => !known.has(part.id));
      if (added) queueMicrotask(() => select([added.id]));
      if (added && "text" in added) setTimeout(typeThere, LOOK_EVERY_MS, added.text);
      return next;
    }
    const nothing = { changes: [], values: [], placings: [], take_back: [], everywhere: true };
    return changeFit(workspace, id, { ...nothing, ...save.edit, step: save.step, ...drawn });
  };
  const revisions: Revisions<FitOut, Save> = useRevisions<FitOut, Save>({
    queryKey: options.queryKey,
    place: `fit-${id}`,
    others: [[workspace, "wall"]],
    revisionOf: (fit) => fit.piece.revision,
    send: async (save, revision, key) => {
      const next = await send(save, revision, key);
      proof.brought(next);
      return next;
    },
    move: async (way) => {
      const { piece, row } = revisions.now();
      if (row) await (way === "undo" ? undoRows : redoRows)(workspace, piece.id);
      else await moveInHistory(workspace, piece.id, way);
      return null;
    },
    keeps: (save) => save.kind === "change" || save.kind === "add",
    refused: (error, save) => {
      if (!isStale(error)) return false;
      const newest = error.body as Schemas["StalePiece"];
      const step = save.kind === "change" ? save.step : "add";
      setConflict({ step, changes: newest.clashes.map((one) => one.change), newest });
      return true;
    },
  });
  const { save, unsaved } = revisions;

  const settle = (mine: boolean) => {
    if (conflict && mine) save({ kind: "change", step: conflict.step, edit: { changes: conflict.changes } });
    setConflict(null);
    revisions.release(conflict?.newest.newest.revision ?? 0);
    if (!mine) void queries.invalidateQueries({ queryKey: options.queryKey });
  };
  const fit = withUnsaved(
    query.data,
    unsaved.flatMap((one) => (one.kind === "change" ? (one.edit.values ?? []) : [])),
  );
  return {
    fit,
    error: query.error,
    outbox: revisions.outbox,
    conflict,
    settle,
    everywhere,
    setEverywhere,
    change: (step, values) => save({ kind: "change", step, edit: { values, everywhere } }),
    act: (step, changes) => save({ kind: "change", step, edit: { changes } }),
    place: (step, placings, values = []) =>
      save({ kind: "change", step, edit: { placings, values, everywhere } }),
    add: (addition) => save({ kind: "add", addition }),
    takeBack: (adjusted) =>
      save({ kind: "change", step: "take adjustments back", edit: { take_back: adjusted } }),
    repair: (name, part) => save({ kind: "repair", name, part }),
    move: (liveliness) => save({ kind: "motion", liveliness }),
    compose: (on) => save({ kind: "compose", on }),
    prepare: (step, part) => save({ kind: "prepare", step, part }),
    undo: () => fit?.piece.undo && revisions.undo(),
    redo: () => fit?.piece.redo && revisions.redo(),
  };
}
