import { useQuery } from "@tanstack/react-query";

import { artworkFoundQuery } from "../api/queries";

const SEEN_AT_A_GLANCE = 24;

interface Props {
  workspace: string;
  words: string;
  type: (words: string) => void;
}

/** A field to find artwork by words, in lists that are longer than one sees at a glance. */
export function FindWords({ workspace, words, type }: Props) {
  const found = useQuery(artworkFoundQuery(workspace));
  if ((found.data?.all ?? 0) <= SEEN_AT_A_GLANCE) return null;
  return (
    <div className="border-b border-hairline px-3 py-2">
      <input
        type="search"
        aria-label="Find artwork"
        placeholder={`Find one of ${found.data!.all}`}
        value={words}
        onChange={(event) => type(event.target.value)}
        className="min-h-7 w-full border-b border-ink bg-transparent placeholder:text-soft"
      />
    </div>
  );
}
