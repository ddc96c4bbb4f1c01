import { useQuery } from "@tanstack/react-query";

import type { Limits } from "../api/client";
import { sessionQuery } from "../api/queries";

/** The limits that the server states; everybody who sees a screen is signed in, so they are there. */
export function useLimits(): Limits {
  return useQuery(sessionQuery()).data!.limits;
}

/** Between which values a field of a document may lie, each times `unit` where it is shown in another one. */
export function useRange(document: string, field: string, unit = 1): { least?: number; most?: number } {
  const range = useLimits().ranges[document]?.[field];
  return { least: times(range?.least, unit), most: times(range?.most, unit) };
}

const times = (value: number | null | undefined, unit: number) =>
  value === null || value === undefined ? undefined : value * unit;
