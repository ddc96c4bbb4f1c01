import type { ArtworkOut } from "../../api/client";
import { artworkPlayingUrl, artworkUrl } from "../../api/queries";
import { clock } from "../../measure/clock";
import { MovingImage, useLooked } from "../../ui/MovingImage";
import { backing } from "./backing";

interface LibraryProps {
  workspace: string;
  all: ArtworkOut[];
  shown: string | null;
  choose: (id: string) => void;
}

/** The artwork as small pictures on lines. */
export function Library({ workspace, all, shown, choose }: LibraryProps) {
  if (all.length === 0)
    return <p className="py-4 text-soft">Nothing is like that. Try another word, or show all of it.</p>;
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] content-start gap-x-6 gap-y-7">
      {all.map((entry) => (
        <li key={entry.id}>
          <Entry
            workspace={workspace}
            entry={entry}
            chosen={entry.id === shown}
            choose={() => choose(entry.id)}
          />
        </li>
      ))}
    </ul>
  );
}

interface EntryProps {
  workspace: string;
  entry: ArtworkOut;
  chosen: boolean;
  choose: () => void;
}

function Entry({ workspace, entry, chosen, choose }: EntryProps) {
  const [looked, handlers] = useLooked();
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={choose}
      {...handlers}
      className="block w-full text-left"
    >
      <span className="flex h-28 items-end border-b-2 border-strong">
        {entry.visible ? (
          <MovingImage
            still={artworkUrl(workspace, entry, 336)}
            moving={artworkPlayingUrl(workspace, entry)}
            looked={looked}
            alt=""
            className={`max-h-26 max-w-full ${backing(entry)}`}
          />
        ) : (
          <span className="mb-2 text-[12px] text-soft">
            {entry.state === "ready"
              ? "an animation"
              : entry.state === "failed"
                ? "not readable"
                : "reading…"}
          </span>
        )}
      </span>
      <span
        className={`mt-2 block truncate text-[13px] font-semibold ${chosen ? "text-measure" : ""} ${entry.state === "failed" ? "text-refused" : ""}`}
      >
        {entry.name}
      </span>
      <span className="figure block text-soft">{shortFacts(entry)}</span>
    </button>
  );
}

function shortFacts(entry: ArtworkOut): string {
  if (!entry.facts) return entry.state === "failed" ? "see what is wrong" : `${entry.progress} %`;
  const size = `${Math.round(entry.facts.width)} × ${Math.round(entry.facts.height)}`;
  const { kind, seconds, vector } = entry.facts;
  const what = kind === "clip" && seconds ? `clip ${clock(seconds)}` : entry.plays ? `${kind}, moves` : kind;
  return `${what} · ${vector ? "vector" : size}`;
}
