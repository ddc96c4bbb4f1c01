import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { sharedFilesQuery } from "../../api/placeQueries";
import { wallQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { useSharing } from "../../ui/useSharing";

/** The places that take the same file as this one; another one can be added, or is told why not. */
export function OneFile({ workspace, place, name }: { workspace: string; place: string; name: string }) {
  const groups = useQuery(sharedFilesQuery(workspace)).data ?? [];
  const wall = useQuery(wallQuery(workspace)).data;
  const sharing = useSharing(workspace);
  const [other, setOther] = useState("");
  const group = groups.find((one) => one.joined && one.places.some((entry) => entry.id === place));
  const members = group?.places.map((one) => one.id) ?? [place];
  const possible = groups.find((one) => !one.joined && one.places.some((entry) => entry.id === place));
  const goes = new Set(possible?.places.map((one) => one.id));
  const all = (wall?.shelves ?? []).flatMap((shelf) =>
    shelf.placements
      .filter((one) => !members.includes(one.id))
      .map((one) => ({ id: one.id, words: `${one.name}, ${shelf.name}` })),
  );
  const filled = wall?.shelves.some((shelf) => shelf.placements.some((one) => one.id === place && one.fit));
  if (all.length === 0 && !group) return null;
  return (
    <section className="mt-9 text-[14px]">
      <h2 className="border-b border-strong pb-1 text-[14px]">One file for several places</h2>
      {group && (
        <p className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-1.5">
          <span>
            {name} takes the same file as{" "}
            <b>
              {group.places
                .filter((one) => one.id !== place)
                .map((one) => one.name)
                .join(" and ")}
            </b>
            .
          </span>
          <Button look="bare" disabled={sharing.busy} onClick={() => sharing.part.mutate(place)}>
            Give it a file of its own
          </Button>
        </p>
      )}
      {group?.broken && (
        <p className="py-1 font-semibold text-risky">
          One file no longer serves them; each has its own for now. {group.broken}
        </p>
      )}
      {all.length > 0 && (
        <form
          className="flex flex-wrap items-baseline gap-x-3 gap-y-1 py-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            if (other) sharing.join.mutate({ places: [...members, other], leader: filled ? place : other });
          }}
        >
          <label className="text-soft">
            The same file for{" "}
            <select
              value={other}
              onChange={(event) => {
                sharing.join.reset();
                setOther(event.target.value);
              }}
              className="min-h-7 max-w-full border-b border-ink bg-transparent text-ink [&>option]:bg-sheet"
            >
              <option value="">choose a place</option>
              {[...all.filter((one) => goes.has(one.id)), ...all.filter((one) => !goes.has(one.id))].map(
                (one) => (
                  <option key={one.id} value={one.id}>
                    {one.words}
                    {goes.has(one.id) ? " (one file serves both)" : ""}
                  </option>
                ),
              )}
            </select>
          </label>
          <Button type="submit" disabled={!other || sharing.busy}>
            Let one file serve both
          </Button>
        </form>
      )}
      {sharing.error && <Problem message={sharing.error.message} onDismiss={sharing.join.reset} />}
    </section>
  );
}
