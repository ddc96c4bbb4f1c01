import type { FitOut, Schemas } from "../../api/client";

/** A fit as its fields show it: with values that the server does not have yet. */
export function withUnsaved(fit: FitOut | undefined, values: Schemas["FieldValue"][]): FitOut | undefined {
  if (!fit || values.length === 0) return fit;
  const here = { ...fit.here };
  for (const { part, field, value } of values) {
    const own = here[part];
    if (own) here[part] = { ...own, [field]: value } as typeof own;
  }
  return { ...fit, here };
}
