import type { Entry, RowChange, Run } from "../../api/runQueries";

/** A run as it will be once the server has made these changes, as far as its table shows it. */
export function withChanges(run: Run, changes: RowChange[]): Run {
  return { ...run, rows: changes.reduce(changed, run.rows) };
}

function changed(rows: Entry[], change: RowChange): Entry[] {
  switch (change.act) {
    case "cell":
      return rows.map((row) =>
        row.id === change.row ? { ...row, cells: { ...row.cells, [change.field]: change.text } } : row,
      );
    case "add":
      return placed(rows, change.entry as Entry, change.before ?? null);
    case "remove":
      return rows.filter((row) => row.id !== change.row);
    case "move": {
      const moved = rows.find((row) => row.id === change.row);
      const others = rows.filter((row) => row !== moved);
      return moved ? placed(others, moved, change.before ?? null) : rows;
    }
    case "put away":
      return rows.map((row) => (row.id === change.row ? { ...row, put_away: change.on } : row));
    default:
      return rows;
  }
}

function placed(rows: Entry[], row: Entry, before: string | null): Entry[] {
  const at = rows.findIndex((other) => other.id === before);
  return at < 0 ? [...rows, row] : [...rows.slice(0, at), row, ...rows.slice(at)];
}
