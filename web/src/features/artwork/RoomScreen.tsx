import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import { describeArtwork } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { artworkUrl, roomQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Problem, Trouble } from "../../ui/Trouble";
import { backing } from "./backing";

type Heavy = Schemas["HeavyArtwork"];

/** What takes the room of the workspace, the heaviest first, and how to get some back. */
export function RoomScreen() {
  const { workspace = "" } = useParams();
  const room = useQuery(roomQuery(workspace));
  const queries = useQueryClient();
  const putAway = useMutation({
    mutationFn: ({ id, put_away }: Heavy) => describeArtwork(workspace, id, { put_away: !put_away }),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }),
  });
  if (room.error && !room.data) return <Trouble error={room.error} />;
  if (!room.data) return <main aria-busy className="px-7 py-10" />;
  const { used, quota, share, kinds, heaviest, kept_days } = room.data;
  return (
    <main className="max-w-[1100px] px-7 pt-4 pb-10">
      <h1 className="text-[26px] leading-9">
        {used} of {quota} taken.
      </h1>
      <div aria-hidden className="mt-3 h-2 border border-strong">
        <div
          className="h-full bg-measure"
          style={{ width: `${Math.min(100, Math.max(0.3, 100 * share))}%` }}
        />
      </div>
      <p className="mt-3 max-w-[70ch] text-soft">
        Artwork that you put away and that no piece shows or showed goes after {kept_days} days. So do files
        that were made for a place and are out of date; what was delivered stays.
      </p>
      {putAway.error && (
        <div className="mt-3">
          <Problem message={putAway.error.message} onDismiss={putAway.reset} />
        </div>
      )}
      <div className="mt-7 grid gap-10 lg:grid-cols-[300px_minmax(0,1fr)]">
        <section>
          <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">By kind</h2>
          <dl className="text-[13px]">
            {kinds.map((kind) => (
              <div key={kind.name} className="border-b border-hairline py-2">
                <div className="flex justify-between gap-4">
                  <dt>{kind.name}</dt>
                  <dd className="figure">{kind.weight}</dd>
                </div>
                <div aria-hidden className="mt-1 h-1 bg-measure" style={{ width: `${100 * kind.share}%` }} />
              </div>
            ))}
          </dl>
        </section>
        <section>
          <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">The heaviest artwork</h2>
          <ul className="text-[13px]">
            {heaviest.map((one) => (
              <Row key={one.id} workspace={workspace} artwork={one} putAway={() => putAway.mutate(one)} />
            ))}
          </ul>
        </section>
      </div>
    </main>
  );
}

interface RowProps {
  workspace: string;
  artwork: Heavy;
  putAway: () => void;
}

function Row({ workspace, artwork, putAway }: RowProps) {
  const { id, name, weight, used_in, earlier, put_away, visible } = artwork;
  const seen = used_in.length ? `seen in ${plural(used_in.length, "place", "places")}` : "seen nowhere";
  return (
    <li className="grid grid-cols-[48px_minmax(0,1fr)_auto_auto] items-center gap-x-4 border-b border-hairline py-1.5">
      {visible ? (
        <img
          src={artworkUrl(workspace, artwork, 96)}
          alt=""
          className={`h-9 w-12 object-contain ${backing(artwork)}`}
          loading="lazy"
        />
      ) : (
        <span />
      )}
      <span className="min-w-0">
        <Link
          to={`/w/${workspace}/artwork?chosen=${id}`}
          className="block truncate font-semibold hover:underline"
        >
          {name}
        </Link>
        <span className="text-soft">
          {put_away ? "put away, " : ""}
          {seen}
          {earlier ? `, with ${plural(earlier, "earlier file", "earlier files")}` : ""}
        </span>
      </span>
      <span className="figure">{weight}</span>
      <button
        type="button"
        onClick={putAway}
        aria-label={`${put_away ? "Bring back" : "Put away"} ${name}`}
        className="min-h-7 text-soft hover:text-ink hover:underline"
      >
        {put_away ? "Bring back" : "Put away"}
      </button>
    </li>
  );
}
