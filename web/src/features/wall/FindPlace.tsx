import type { Schemas } from "../../api/client";

export const MANY = 25; // places from which they are looked for rather than looked over
export const said = (words: string) => words.trim().toLowerCase();

interface FindProps {
  wall: Schemas["Wall"];
  words: string;
  setWords: (words: string) => void;
  kind: string;
  setKind: (kind: string) => void;
  /** Whether all shelves are folded. */
  folded: boolean;
  foldAll: (on: boolean) => void;
}

/** Narrows a large wall by words and by kind of place. */
export function FindPlace({ wall, words, setWords, kind, setKind, folded, foldAll }: FindProps) {
  const kinds = [
    ...new Set(wall.shelves.flatMap((shelf) => shelf.placements.flatMap((entry) => entry.kind ?? []))),
  ].sort();
  return (
    <div role="search" className="mt-1 flex flex-wrap items-center gap-x-6 gap-y-1 text-[13px] text-soft">
      <input
        type="search"
        aria-label="Find a place"
        placeholder="Find a place by its name or destination"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        className="min-h-7 w-72 max-w-full border-b border-ink bg-transparent text-ink placeholder:text-soft"
      />
      {kinds.length > 1 && (
        <label>
          Kind{" "}
          <select
            value={kind}
            onChange={(event) => setKind(event.target.value)}
            className="min-h-7 border-b border-ink bg-transparent text-ink [&>option]:bg-sheet"
          >
            <option value="">every</option>
            {kinds.map((one) => (
              <option key={one} value={one}>
                {one.replaceAll("-", " ")}
              </option>
            ))}
          </select>
        </label>
      )}
      <button
        type="button"
        onClick={() => foldAll(!folded)}
        className="min-h-7 font-semibold text-measure hover:underline"
      >
        {folded ? "Unfold all shelves" : "Fold all shelves"}
      </button>
    </div>
  );
}
