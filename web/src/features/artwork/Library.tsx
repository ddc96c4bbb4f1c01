import type { ArtworkOut } from "../../api/client";
import { artworkUrl } from "../../api/queries";
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
          <button
            type="button"
            aria-pressed={entry.id === shown}
            onClick={() => choose(entry.id)}
            className="block w-full text-left"
          >
            <span className="flex h-28 items-end border-b-2 border-strong">
              {entry.visible ? (
                <img
                  src={artworkUrl(workspace, entry, 336)}
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
              className={`mt-2 block truncate text-[13px] font-semibold ${entry.id === shown ? "text-measure" : ""} ${entry.state === "failed" ? "text-refused" : ""}`}
            >
              {entry.name}
            </span>
            <span className="figure block text-soft">{shortFacts(entry)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function shortFacts(entry: ArtworkOut): string {
  if (!entry.facts) return entry.state === "failed" ? "see what is wrong" : `${entry.progress} %`;
  const size = `${Math.round(entry.facts.width)} × ${Math.round(entry.facts.height)}`;
  return `${entry.facts.kind} · ${entry.facts.vector ? "vector" : size}`;
}
