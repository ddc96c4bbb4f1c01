import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";

import { placeArtwork } from "../../api/actions";
import type { ArtworkOut } from "../../api/client";
import { wallQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** Chooses the places that an artwork fills. */
export function PlacesMenu({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const [chosen, setChosen] = useState<string[]>([]);
  const wall = useQuery(wallQuery(workspace));
  const queries = useQueryClient();
  const navigate = useNavigate();
  const fill = useMutation({
    mutationFn: () => placeArtwork(workspace, artwork.id, chosen),
    onSuccess: async (fits) => {
      await queries.invalidateQueries({ queryKey: [workspace, "wall"] });
      const only = fits.length === 1 ? `/fits/${fits[0]!.id}` : "";
      await navigate(`/w/${workspace}${only}`);
    },
  });
  const toggle = (id: string) =>
    setChosen((all) => (all.includes(id) ? all.filter((entry) => entry !== id) : [...all, id]));
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button look="next">Say where it goes</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={12}
          className="z-20 flex max-h-(--radix-popover-content-available-height) w-80 flex-col border border-ink bg-sheet"
        >
          <div className="max-h-105 flex-1 overflow-y-auto px-4 py-2">
            {wall.data?.shelves.map((shelf) => (
              <fieldset key={shelf.id} className="border-b border-hairline py-2 last:border-b-0">
                <legend className="float-left w-full font-heading text-[13px] font-semibold">
                  {shelf.name}
                </legend>
                {shelf.placements.map((place) => (
                  <label key={place.id} className="clear-both flex min-h-7 items-center gap-2.5 text-[13px]">
                    <input
                      type="checkbox"
                      checked={chosen.includes(place.id)}
                      onChange={() => toggle(place.id)}
                      className="size-4 accent-[var(--measure)]"
                    />
                    {place.name}
                    <span className="figure ml-auto text-measure">{place.size}</span>
                  </label>
                ))}
              </fieldset>
            ))}
          </div>
          <div className="flex items-center gap-3 border-t border-hairline p-3">
            <Button
              look="next"
              disabled={chosen.length === 0 || fill.isPending}
              onClick={() => fill.mutate()}
            >
              {chosen.length > 1 ? `Fill ${chosen.length} places` : "Fill it"}
            </Button>
            {fill.error && <Problem message={fill.error.message} />}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
