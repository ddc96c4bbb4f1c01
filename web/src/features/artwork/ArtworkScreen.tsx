import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { artworkFoundQuery, artworkPagesQuery, oneArtworkQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { BringIn } from "../../ui/BringIn";
import { Button } from "../../ui/Button";
import { Trouble } from "../../ui/Trouble";
import { useLater } from "../../ui/useLater";
import { DropZone } from "../../ui/DropZone";
import { Card } from "./Card";
import { Glyphs } from "./Glyphs";
import { askedFor, EVERYTHING, Finding, type Wanted } from "./Finding";
import { Library } from "./Library";

/** All artwork of the workspace, found by words, tags and use; one of them with what it really is. */
export function ArtworkScreen() {
  const { workspace = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const [wanted, setWanted] = useState<Wanted>(EVERYTHING);
  const asked = askedFor({ ...wanted, words: useLater(wanted.words) });
  const pages = useInfiniteQuery(artworkPagesQuery(workspace, asked));
  const found = useQuery(artworkFoundQuery(workspace, asked));
  const chosen = search.get("chosen");
  const choose = (id: string) => setSearch({ chosen: id }, { replace: true });
  const listed = pages.data?.pages.flat() ?? [];
  const here = listed.find((entry) => entry.id === chosen);
  const elsewhere = useQuery(oneArtworkQuery(workspace, here ? null : chosen));
  if (pages.error && !pages.data) return <Trouble error={pages.error} />;
  if (!pages.data || !found.data) return <main aria-busy className="px-7 py-10" />;
  const { all, found: count } = found.data;
  const shown = here ?? (chosen ? elsewhere.data : undefined) ?? listed[0];
  return (
    <DropZone
      targets={[]}
      over="bg-[var(--measure-faint)]"
      className="min-h-[calc(100vh-53px)] px-7 pt-4 pb-10"
    >
      <main>
        <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
          <h1 className="text-[26px] leading-9">
            {count !== all
              ? `${count} of ${plural(all, "artwork", "artworks")}.`
              : `${plural(all, "artwork", "artworks")}, as they came.`}
          </h1>
          {(all > 0 || found.data.put_away) && (
            <Finding found={found.data} wanted={wanted} want={setWanted} />
          )}
          <Glyphs workspace={workspace} made={choose} />
          <Link
            to={`/w/${workspace}/artwork/room`}
            className="min-h-6 text-[13px] text-soft hover:text-ink hover:underline"
          >
            What takes the room
          </Link>
        </div>
        {shown || all > 0 ? (
          <div className="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_408px]">
            <div>
              <Library workspace={workspace} all={listed} shown={shown?.id ?? null} choose={choose} />
              {pages.hasNextPage && (
                <Button
                  look="quiet"
                  className="mt-7"
                  disabled={pages.isFetchingNextPage}
                  onClick={() => void pages.fetchNextPage()}
                >
                  {`Show more of ${count}`}
                </Button>
              )}
            </div>
            {shown && <Card key={shown.id} workspace={workspace} artwork={shown} choose={choose} />}
          </div>
        ) : (
          <div className="py-16">
            <p className="mb-4 text-soft">Nothing here yet. Drop a logo or a photo anywhere on this page.</p>
            <BringIn targets={[]} label="Choose files" look="next" />
          </div>
        )}
      </main>
    </DropZone>
  );
}
