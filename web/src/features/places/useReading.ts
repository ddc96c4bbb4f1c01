import { useQuery } from "@tanstack/react-query";

import { placeReadingQuery } from "../../api/placeQueries";
import { useLater } from "../../ui/useLater";

/** What words say of a place, a moment after somebody stops typing. */
export function useReading(workspace: string, words: string) {
  const later = useLater(words, 150);
  const reading = useQuery({ ...placeReadingQuery(workspace, later), enabled: later.trim() !== "" });
  return { read: later.trim() ? reading.data : undefined, readOf: later, error: reading.error };
}
