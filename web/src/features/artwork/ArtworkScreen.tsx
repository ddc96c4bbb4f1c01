import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { artworkQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { BringIn } from "../../ui/BringIn";
import { Trouble } from "../../ui/Trouble";
import { DropZone } from "../wall/DropZone";
import { Card } from "./Card";
import { Glyphs } from "./Glyphs";
import { EVERYTHING, Finding, found, type Wanted } from "./Finding";
import { Library } from "./Library";

/** All artwork of the workspace, found by words, tags and use; one of them with what it really is. */
export function ArtworkScreen() {
  const { workspace = "" } = useParams();
  const artwork = useQuery(artworkQuery(workspace));
  const [search, setSearch] = useSearchParams();
  const [wanted, setWanted] = useState<Wanted>(EVERYTHING);
  const chosen = search.get("chosen");
  const choose = (id: string) => setSearch({ chosen: id }, { replace: true });
  if (artwork.error && !artwork.data) return <Trouble error={artwork.error} />;
  if (!artwork.data) return <main aria-busy className="px-7 py-10" />;
  const all = artwork.data;
  const listed = found(all, wanted);
  const shown = all.find((entry) => entry.id === chosen) ?? listed[0] ?? all[0];
  return (
    <DropZone
      targets={[]}
      over="bg-[var(--measure-faint)]"
      className="min-h-[calc(100vh-53px)] px-7 pt-4 pb-10"
    >
      <main>
        <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
          <h1 className="text-[26px] leading-9">
            {listed.length < all.length
              ? `${listed.length} of ${plural(all.length, "artwork", "artworks")}.`
              : `${plural(all.length, "artwork", "artworks")}, as they came.`}
          </h1>
          {all.length > 0 && <Finding all={all} wanted={wanted} want={setWanted} />}
          <Glyphs workspace={workspace} made={choose} />
          <Link
            to={`/w/${workspace}/artwork/room`}
            className="ml-auto min-h-6 text-[13px] text-soft hover:text-ink hover:underline"
          >
            What takes the room
          </Link>
        </div>
        {shown ? (
          <div className="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_408px]">
            <Library workspace={workspace} all={listed} shown={shown} choose={choose} />
            <Card key={shown.id} workspace={workspace} artwork={shown} choose={choose} />
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
