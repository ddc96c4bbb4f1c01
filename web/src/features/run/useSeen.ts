import { useQueries } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { seenQuery, type RowInPlace } from "../../api/runQueries";

const TOGETHER = 12; // rows that are asked for at once
const AT_REST_MS = 60;

/** What is asked of rows, by row and place. */
export type Seen = Map<string, RowInPlace>;

export const seenKey = (row: string, placement: string) => `${row}/${placement}`;

/** How the rows from `first` to `last` (of all that are shown) look now; what was known before stays until then. */
export function useSeen(
  workspace: string,
  piece: string,
  rows: string[],
  first: number,
  last: number,
  stamp: string,
): Seen {
  const range = useAtRest(`${Math.floor(first / TOGETHER)} ${Math.floor(Math.max(first, last) / TOGETHER)}`);
  const [from = 0, to = 0] = range.split(" ").map(Number);
  // one more on either side: whoever scrolls on finds them there
  const windows = Array.from({ length: to - from + 3 }, (_, at) => from + at - 1)
    .filter((at) => at >= 0)
    .map((at) => rows.slice(at * TOGETHER, (at + 1) * TOGETHER))
    .filter((some) => some.length > 0);
  const found = useQueries({
    queries: windows.map((some) => seenQuery(workspace, piece, some, stamp)),
    combine: (results) => results.flatMap((one) => one.data ?? []),
  });
  const [seen, setSeen] = useState<Seen>(() => new Map());
  const [taken, setTaken] = useState(found);
  if (taken !== found) {
    setTaken(found);
    setSeen(new Map([...seen, ...found.map((one) => [seenKey(one.row, one.placement), one] as const)]));
  }
  return seen;
}

/** A value once it has not changed for a moment: nobody looks at what scrolls by. */
function useAtRest(value: string): string {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const soon = setTimeout(() => setRested(value), AT_REST_MS);
    return () => clearTimeout(soon);
  }, [value]);
  return rested;
}
