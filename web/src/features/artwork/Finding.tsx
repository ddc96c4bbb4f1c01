import type { ArtworkOut } from "../../api/client";

/** What somebody looks for: words, a tag, and a place of use. */
export interface Wanted {
  words: string;
  tag: string;
  use: string;
}

export const EVERYTHING: Wanted = { words: "", tag: "", use: "" };
const UNUSED = "no place yet";
const PUT_AWAY = "put away";

/** The artwork that has all the words in its name, tags, kind or format, the tag, and the place. */
export function found(all: ArtworkOut[], { words, tag, use }: Wanted): ArtworkOut[] {
  const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter((entry) => {
    if (entry.put_away !== (use === PUT_AWAY)) return false;
    const said = [entry.name, ...entry.tags, entry.facts?.kind, entry.facts?.format, ...entry.used_in]
      .join(" ")
      .toLowerCase();
    const there =
      use === UNUSED
        ? entry.used_in.length === 0
        : !use || use === PUT_AWAY || entry.used_in.some((one) => destination(one) === use);
    return parts.every((part) => said.includes(part)) && (!tag || entry.tags.includes(tag)) && there;
  });
}

const destination = (use: string) => use.split(", ")[0]!;

interface Props {
  all: ArtworkOut[];
  wanted: Wanted;
  want: (wanted: Wanted) => void;
}

/** Search, tags, and folders that are the destinations where artwork is seen. */
export function Finding({ all, wanted, want }: Props) {
  const away = all.some((entry) => entry.put_away) ? [PUT_AWAY] : [];
  const tags = [...new Set(all.flatMap((entry) => entry.tags))].sort();
  const uses = [...new Set(all.flatMap((entry) => entry.used_in.map(destination)))].sort();
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
        <Pick
          options={[...uses, UNUSED, ...away]}
          value={wanted.use}
          choose={(use) => want({ ...wanted, use })}
        />
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
