import type { RowProblem } from "../../api/runQueries";
import { seenKey } from "./useSeen";

/** What is said of rows in places, by row and place. */
export function problemsByPlace(problems: RowProblem[]): Map<string, RowProblem[]> {
  return grouped(
    problems.filter((one) => one.placement),
    (one) => seenKey(one.row, one.placement ?? ""),
  );
}

/** What is wrong with cells, by row and field; with a row as a whole under no field. */
export function problemsByCell(problems: RowProblem[]): Map<string, RowProblem[]> {
  return grouped(
    problems.filter((one) => !one.placement),
    (one) => cellKey(one.row, one.field ?? ""),
  );
}

export const cellKey = (row: string, field: string) => `${row}/${field}`;

function grouped(problems: RowProblem[], key: (one: RowProblem) => string): Map<string, RowProblem[]> {
  const found = new Map<string, RowProblem[]>();
  for (const one of problems) found.set(key(one), [...(found.get(key(one)) ?? []), one]);
  return found;
}
