import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Schemas } from "../../../api/client";
import { draftQuery } from "../../../api/placeQueries";
import { useLater } from "../../../ui/useLater";

export type Sheet = Schemas["SheetOut"]["sheet"];
export type Patch = Partial<Sheet>;

export interface Draft {
  /** The sheet with what was changed in it; it need not be one yet. */
  sheet: Sheet;
  /** The last one that could be read, as it is shown. */
  shown: Schemas["SheetOut"];
  contradictions: Schemas["ContradictionOut"][];
  changed: boolean;
  /** Whether it can be read, and what is shown is this very draft. */
  sound: boolean;
  set: (patch: Patch) => void;
  undo: () => void;
  reset: () => void;
}

const same = (one: unknown, other: unknown) => JSON.stringify(one ?? null) === JSON.stringify(other ?? null);

/**
 * Changes to a sheet that do not count yet, key by key: what lies under them may change meanwhile. With `follow` a
 * newer value underneath wins over the change (the words were typed later than it was made).
 */
export function useDraft(workspace: string, saved: Schemas["SheetOut"], follow = false): Draft {
  const [steps, setSteps] = useState<Patch[]>([]);
  const [base, setBase] = useState(saved.sheet);
  if (follow && !same(base, saved.sheet)) {
    const keys = Object.keys(saved.sheet) as (keyof Sheet)[];
    const newer = keys.filter((key) => !same(base[key], saved.sheet[key]));
    setBase(saved.sheet);
    setSteps(steps.map((patch) => without(patch, newer)));
  }
  const patch = steps.at(-1) ?? {};
  const sheet = { ...saved.sheet, ...patch };
  const changed = !same(sheet, saved.sheet);
  const later = useLater(sheet, 120);
  const looked = useQuery({ ...draftQuery(workspace, later), enabled: changed });
  const answer = changed ? looked.data : undefined;
  const [kept, keep] = useState(saved);
  if (answer?.shown && answer.shown !== kept) keep(answer.shown);
  const shown = changed ? (answer?.shown ?? kept) : saved;
  return {
    sheet,
    shown,
    contradictions: changed ? (answer?.contradictions ?? []) : saved.contradictions,
    changed,
    sound: !changed || (Boolean(answer?.shown) && !looked.isPlaceholderData && same(later, sheet)),
    set: (next) => setSteps([...steps, { ...patch, ...next }]),
    undo: () => setSteps(steps.slice(0, -1)),
    reset: () => setSteps([]),
  };
}

function without(patch: Patch, keys: (keyof Sheet)[]): Patch {
  const left = { ...patch };
  for (const key of keys) delete left[key];
  return left;
}
