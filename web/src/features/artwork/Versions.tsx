import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { useState } from "react";

import { joinVersions } from "../../api/actions";
import type { ArtworkOut } from "../../api/client";
import { artworkQuery, artworkUrl } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { useDarkVersion } from "../../ui/useDarkVersion";

interface Props {
  workspace: string;
  artwork: ArtworkOut;
  choose: (id: string) => void;
}

/** A mark on light and dark grounds, in that of its versions which shows best there; joined, parted, made. */
export function Versions({ workspace, artwork, choose }: Props) {
  const queries = useQueryClient();
  const after = () => queries.invalidateQueries({ queryKey: [workspace] });
  const join = useMutation({
    mutationFn: (other: string | null) => joinVersions(workspace, artwork.id, other),
    onSuccess: after,
  });
  const make = useDarkVersion(workspace, artwork.id);
  const { on_grounds } = artwork;
  if (!on_grounds) return null;
  const joined = artwork.versions.length > 1;
  const { light, dark } = on_grounds;
  const shown = [
    {
      words: "light",
      colour: on_grounds.light_ground,
      version: light,
      ratio: light.showing.on_light,
      shows: light.showing.shows_on_light,
    },
    {
      words: "dark",
      colour: on_grounds.dark_ground,
      version: dark,
      ratio: dark.showing.on_dark,
      shows: dark.showing.shows_on_dark,
    },
  ];
  const trouble = join.error ?? make.error;
  return (
    <section aria-label="Light and dark" className="mt-4 text-[13px]">
      <div className="grid grid-cols-2 border border-hairline">
        {shown.map(({ words, colour, version, ratio, shows }) => (
          <div key={words}>
            <span className="flex h-16 items-center justify-center p-2" style={{ background: colour }}>
              <img
                src={artworkUrl(workspace, version, 200)}
                alt={`${version.name} on ${words}`}
                className="max-h-full max-w-full object-contain"
              />
            </span>
            <span className={`figure block px-2 py-1 ${shows ? "text-fits" : "text-risky"}`}>
              {ratio.toFixed(1)} on {words}
              {shows ? "" : ", too faint"}
            </span>
          </div>
        ))}
      </div>
      <p className="mt-1 flex flex-wrap items-center gap-x-4">
        {joined && (
          <span className="text-soft">
            {"Its versions: "}
            {artwork.versions
              .filter((one) => one.id !== artwork.id)
              .map((one) => (
                <button
                  key={one.id}
                  type="button"
                  onClick={() => choose(one.id)}
                  className="mr-2 min-h-6 text-measure hover:underline"
                >
                  {one.name}
                </button>
              ))}
          </span>
        )}
        {!dark.showing.shows_on_dark && (
          <Button look="bare" disabled={make.isPending} onClick={() => make.mutate()}>
            {make.isPending ? "Making it…" : "Make a version for dark grounds"}
          </Button>
        )}
        {joined ? (
          <Button look="bare" onClick={() => join.mutate(null)}>
            Part it from its versions
          </Button>
        ) : (
          <JoinWith workspace={workspace} artwork={artwork} join={join.mutate} />
        )}
      </p>
      {trouble && <Problem message={trouble.message} />}
    </section>
  );
}

function JoinWith({ workspace, artwork, join }: Omit<Props, "choose"> & { join: (other: string) => void }) {
  const all = useQuery(artworkQuery(workspace, { kind: "mark", put_away: false }));
  const marks = (all.data ?? []).filter(
    (entry) => entry.versions.length > 0 && entry.id !== artwork.id && !entry.put_away,
  );
  const [chosen, setChosen] = useState("");
  if (marks.length === 0) return null;
  return (
    <span className="flex items-baseline gap-2">
      <label className="text-soft" htmlFor="version-of">
        A version of
      </label>
      <select
        id="version-of"
        value={chosen}
        onChange={(event) => setChosen(event.target.value)}
        className="min-h-7 max-w-44 border-b border-ink bg-transparent [&>option]:bg-sheet"
      >
        <option value="">no other mark</option>
        {marks.map((mark) => (
          <option key={mark.id} value={mark.id}>
            {mark.name}
          </option>
        ))}
      </select>
      {chosen && (
        <Button look="bare" onClick={() => join(chosen)}>
          Join them
        </Button>
      )}
    </span>
  );
}
