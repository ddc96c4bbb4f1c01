import type { PreparationOut, Schemas } from "../../../api/client";

/** Steps that are on, in order, with what came of them. */
export const madeBefore = (data: PreparationOut, id: string): Schemas["StepOut"][] => {
  const on = data.document.steps.filter((step) => step.on);
  const index = data.document.steps.findIndex((step) => step.id === id);
  const earlier = data.document.steps.slice(0, Math.max(index, 0)).filter((step) => step.on).length;
  return data.steps.slice(0, Math.min(earlier, on.length));
};

/** The natural size in px of the picture that a step meets. */
export const sizeBefore = (data: PreparationOut, id: string): Schemas["SizeOut"] =>
  madeBefore(data, id).at(-1)?.size ?? data.before;

export interface Shown {
  upto: number;
  key: string;
  size: Schemas["SizeOut"];
  words: string;
}

/** The picture before a step. */
export function before(data: PreparationOut, id: string): Shown {
  const made = madeBefore(data, id);
  const last = made.at(-1);
  return {
    upto: made.length,
    key: last?.key ?? data.key,
    size: last?.size ?? data.before,
    words: made.length ? `after step ${made.length}` : "as it came",
  };
}

/** The picture after a step; after all of them where none is named or it is off. */
export function after(data: PreparationOut, id: string | undefined): Shown {
  const index = data.steps.findIndex((step) => step.id === id);
  const upto = index < 0 ? data.steps.length : index + 1;
  const last = data.steps[upto - 1];
  return {
    upto,
    key: last?.key ?? data.key,
    size: last?.size ?? data.before,
    words: upto ? `after step ${upto}` : "as it came",
  };
}
