import type { Entry, Run } from "../../api/runQueries";
import { STATES } from "../../ui/State";

export type Only = "all" | "to look at" | "by hand" | "put away";

interface Props {
  run: Run;
  words: string;
  find: (words: string) => void;
  only: Only;
  choose: (only: Only) => void;
}

/** Which rows are shown: those with words, those to look at, those that differ by hand, those put away. */
export function Finding({ run, words, find, only, choose }: Props) {
  const wrong = new Set(run.problems.map((one) => one.row)).size;
  const differing = Object.keys(run.by_hand).length;
  const away = run.rows.filter((row) => row.put_away).length;
  const options: [Only, string, number][] = [
    ["all", "All", run.rows.length - away],
    ["to look at", "To look at", wrong],
    ["by hand", "By hand", differing],
    ["put away", "Put away", away],
  ];
  const { symbol: Symbol, colour } = STATES.risky;
  return (
    <>
      <input
        type="search"
        value={words}
        onChange={(event) => find(event.target.value)}
        placeholder="Find in rows"
        aria-label="Find in rows"
        className="min-h-7 w-36 border-b border-ink bg-transparent text-[13px] placeholder:text-soft"
      />
      <div role="group" aria-label="Which rows" className="flex flex-wrap gap-x-3 text-[13px]">
        {options
          .filter(([key, , count]) => key === "all" || count > 0 || key === only)
          .map(([key, label, count]) => (
            <button
              key={key}
              type="button"
              aria-pressed={key === only}
              onClick={() => choose(key)}
              className={`inline-flex min-h-7 items-center gap-1 border-b-2 ${key === only ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
            >
              {key === "to look at" && <Symbol aria-hidden size={12} strokeWidth={2.6} className={colour} />}
              {label} <span className="figure">{count}</span>
            </button>
          ))}
      </div>
    </>
  );
}

/** The rows with these words in any cell that are what somebody wants to see. */
export function matching(run: Run, words: string, only: Only): Entry[] {
  const wanted = words.trim().toLowerCase();
  const wrong = new Set(run.problems.map((one) => one.row));
  return run.rows.filter((row) => {
    if (Boolean(row.put_away) !== (only === "put away")) return false;
    if (only === "to look at" && !wrong.has(row.id)) return false;
    if (only === "by hand" && !run.by_hand[row.id]) return false;
    return (
      !wanted || run.fields.some((field) => wordsOf(run, row, field.name).toLowerCase().includes(wanted))
    );
  });
}

function wordsOf(run: Run, row: Entry, field: string): string {
  const text = row.cells?.[field] ?? "";
  return run.pictures[text.trim()]?.name ?? text;
}
