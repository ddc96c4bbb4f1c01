import type { ArtworkWanted, Schemas } from "../../api/client";

/** What somebody looks for: words, a tag, and a place of use. */
export interface Wanted {
  words: string;
  tag: string;
  use: string;
}

export const EVERYTHING: Wanted = { words: "", tag: "", use: "" };

/** The same as the server is asked for it. */
export const askedFor = ({ words, tag, use }: Wanted): ArtworkWanted => ({
  words: words.trim(),
  tag,
  seen_in: use,
  put_away: false,
});

interface Props {
  found: Schemas["ArtworkFound"];
  wanted: Wanted;
  want: (wanted: Wanted) => void;
}

/** Search, tags, and folders that are the destinations where artwork is seen. */
export function Finding({ found, wanted, want }: Props) {
  const { tags, seen_in: uses } = found;
  return (
    <div role="search" className="flex flex-wrap items-baseline gap-x-5 gap-y-1 text-[13px]">
      <input
        type="search"
        aria-label="Find artwork"
        placeholder="Find by name, tag, kind"
        value={wanted.words}
        onChange={(event) => want({ ...wanted, words: event.target.value })}
        className="min-h-7 w-52 border-b border-ink bg-transparent placeholder:text-soft"
      />
      <label className="flex items-baseline gap-2">
        <span className="text-soft">Seen in</span>
        <Pick options={uses} value={wanted.use} choose={(use) => want({ ...wanted, use })} />
      </label>
      {tags.length > 0 && (
        <label className="flex items-baseline gap-2">
          <span className="text-soft">Tag</span>
          <Pick options={tags} value={wanted.tag} choose={(tag) => want({ ...wanted, tag })} />
        </label>
      )}
      {(wanted.words || wanted.tag || wanted.use) && (
        <button
          type="button"
          className="min-h-7 font-semibold text-measure hover:underline"
          onClick={() => want(EVERYTHING)}
        >
          Show all
        </button>
      )}
    </div>
  );
}

interface PickProps {
  options: string[];
  value: string;
  choose: (value: string) => void;
}

function Pick({ options, value, choose }: PickProps) {
  return (
    <select
      value={value}
      onChange={(event) => choose(event.target.value)}
      className="min-h-7 border-b border-ink bg-transparent [&>option]:bg-sheet"
    >
      <option value="">any</option>
      {options.map((option) => (
        <option key={option}>{option}</option>
      ))}
    </select>
  );
}
