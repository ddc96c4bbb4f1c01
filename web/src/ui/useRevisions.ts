import { useQueryClient, type QueryKey } from "@tanstack/react-query";
import { useRef } from "react";

import { Failure } from "../api/client";
import { useHistoryKeys } from "./useHistoryKeys";
import type { Unsent } from "./outbox";
import { useOutbox, type Sending } from "./useOutbox";

export type Way = "undo" | "redo";
/** A walk through the history is sent in its turn, but not kept: it means something only now. */
type Walk = { way: Way };
type Wanted<W> = W | Walk;

interface Options<T, W> {
  queryKey: QueryKey;
  /** What is saved, in a word that no other document has. */
  place: string;
  /** What else the answer to a save makes old. */
  others: QueryKey[];
  revisionOf: (document: T) => number;
  send: (wanted: W, revision: number, key: string) => Promise<T>;
  move: (way: Way) => Promise<T | null>;
  keeps: (wanted: W) => boolean;
  refused: (error: Failure, wanted: W) => boolean;
}

export interface Revisions<T, W> {
  now: () => T;
  keep: (next: T) => Promise<void>;
  save: (wanted: W) => void;
  outbox: Sending<unknown>;
  /** What the server does not have yet. */
  unsaved: W[];
  undo: () => void;
  redo: () => void;
  /** Goes on after a refusal that held everything, from this revision. */
  release: (revision: number) => void;
}

const isWalk = (wanted: unknown): wanted is Walk => typeof wanted === "object" && "way" in (wanted as object);

/** What the bench and the preparation do alike: save in order, keep the newest answer, walk in the history. */
export function useRevisions<T, W extends object>(options: Options<T, W>): Revisions<T, W> {
  const { queryKey, others, revisionOf, send, move, keeps, refused } = options;
  const queries = useQueryClient();
  const last = useRef(0); // the revision of the last answer: what was made meanwhile stands on that
  const now = () => queries.getQueryData<T>(queryKey)!;
  const keep = async (next: T) => {
    last.current = Math.max(last.current, revisionOf(next));
    await queries.cancelQueries({ queryKey }); // one on its way may bring the state before this
    queries.setQueryData(queryKey, next);
    for (const other of others) void queries.invalidateQueries({ queryKey: other });
  };
  const sendNoted = (wanted: W, revision: number, key: string) =>
    send(wanted, revision, key).catch((error: unknown) => {
      if (error instanceof Failure && error.savedRevision !== null) {
        last.current = Math.max(last.current, error.savedRevision);
        void queries.invalidateQueries({ queryKey });
      }
      throw error;
    });
  const outbox = useOutbox<Wanted<W>>(options.place, {
    keeps: (wanted) => !isWalk(wanted) && keeps(wanted),
    send: async ({ key, base, wanted }: Unsent<Wanted<W>>) => {
      if (!isWalk(wanted)) return keep(await sendNoted(wanted, Math.max(base, last.current), key));
      const next = await move(wanted.way);
      if (next) return keep(next);
      await queries.invalidateQueries({ queryKey: [queryKey[0]] });
      last.current = Math.max(last.current, revisionOf(now()));
    },
    refused: (error, wanted) => !isWalk(wanted) && refused(error, wanted),
  });
  const { push } = outbox;
  const undo = () => push({ way: "undo" }, 0);
  const redo = () => push({ way: "redo" }, 0);
  useHistoryKeys(undo, redo);
  return {
    now,
    keep,
    save: (wanted) => push(wanted, revisionOf(now())),
    outbox: outbox as Sending<unknown>,
    unsaved: outbox.waiting.filter((wanted): wanted is W => !isWalk(wanted)),
    undo,
    redo,
    release: (revision) => {
      last.current = Math.max(last.current, revision);
      outbox.release();
    },
  };
}

/** Whether somebody else was faster. */
export const isStale = (error: unknown): error is Failure => error instanceof Failure && error.status === 409;
