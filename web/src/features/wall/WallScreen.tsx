import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";

import type { PlaceState, Schemas } from "../../api/client";
import { wallQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { STATES } from "../../ui/State";
import { Notice, Trouble } from "../../ui/Trouble";
import { DeliverLink } from "./DeliverLink";
import { DropZone } from "../../ui/DropZone";
import { FindPlace, MANY, said } from "./FindPlace";
import { ShelfRow } from "./ShelfRow";
import { SharedFiles } from "./SharedFiles";
import { PlayTogether } from "./playing";
import { useFolded } from "./useFolded";
import { useRoom } from "./useRoom";

type Wall = Schemas["Wall"];
const ORDER: PlaceState[] = ["fits", "risky", "refused", "failed", "out of date", "empty", "working"];

export function WallScreen() {
  const { workspace = "" } = useParams();
  const room = useRoom();
  const wall = useQuery(wallQuery(workspace, room));
  const [only, setOnly] = useState<PlaceState | null>(null);
  const [words, setWords] = useState("");
  const [kind, setKind] = useState("");
  const { folded, fold } = useFolded(workspace);
  const [together, setTogether] = useState(false);
  if (wall.error && !wall.data) return <Trouble error={wall.error} />;
  if (!wall.data) return <main aria-busy className="px-7 py-10 text-soft" />;
  const looking = Boolean(only || kind || words.trim());
  const empty = wall.data.shelves.every((shelf) => shelf.placements.length === 0);
  const large = wall.data.shelves.flatMap((shelf) => shelf.placements).length >= MANY;
  const stand = wall.data.shelves.flatMap((shelf) => shelf.placements.map((one) => one.fit ?? "")).join();
  const order = wall.data.shelves.map((shelf) => shelf.id);
  const shelves = wall.data.shelves
    .map((shelf) => ({
      ...shelf,
      placements: shelf.placements.filter(
        (entry) =>
          (!only || entry.state === only) &&
          (!kind || entry.kind === kind) &&
          said(`${shelf.name} ${entry.name}`).includes(said(words)),
      ),
    }))
    .filter((shelf) => shelf.placements.length > 0 || (!looking && !empty));
  return (
    <DropZone targets={["suited"]} className="flex min-h-[calc(100vh-53px)] flex-col px-7 pt-3">
      <main>
        {wall.error && <Notice words={`Not up to date. ${wall.error.message}`} />}
        {wall.data.notice && <Notice words={wall.data.notice} />}
        {!empty && (
          <Summary
            wall={wall.data}
            only={only}
            setOnly={setOnly}
            workspace={workspace}
            together={together}
            setTogether={setTogether}
          />
        )}
        {large && (
          <FindPlace
            wall={wall.data}
            words={words}
            setWords={setWords}
            kind={kind}
            setKind={setKind}
            folded={order.every((one) => folded.has(one))}
            foldAll={(on) => fold(order, on)}
          />
        )}
        <div className="mt-2 grid grid-flow-dense gap-x-10 gap-y-2 md:grid-cols-2 xl:grid-cols-4">
          <PlayTogether value={together}>
            {shelves.map((shelf) => (
              <ShelfRow
                key={shelf.id}
                shelf={shelf}
                workspace={workspace}
                tall={room.tall}
                position={order.indexOf(shelf.id)}
                of={order.length}
                large={large}
                folded={!looking && folded.has(shelf.id)}
                fold={(on) => fold([shelf.id], on)}
              />
            ))}
          </PlayTogether>
        </div>
        {!empty && shelves.length === 0 && (words || kind) && (
          <p className="py-10 text-soft">No place is called so{kind && ", of this kind"}.</p>
        )}
        {!empty && shelves.length === 0 && only && !words && !kind && <NoneNow state={only} />}
        {!empty && !looking && <SharedFiles workspace={workspace} stand={stand} />}
        {empty && <FirstPlace workspace={workspace} />}
      </main>
      <footer className="mt-auto flex flex-wrap items-baseline gap-x-5 border-t border-dashed border-strong py-4 text-soft">
        <b className="font-heading text-[15px] text-ink">Drop a file anywhere</b>
        on a place to fit it there, on a shelf to fill the shelf, here to fill every empty place it suits.
        Pasting works too.
        <span className="figure ml-auto">
          PNG JPEG WebP AVIF HEIC GIF TIFF BMP ICO SVG PDF MP4 MOV WebM Lottie
        </span>
      </footer>
    </DropZone>
  );
}

const NoneNow = ({ state }: { state: PlaceState }) => (
  <p className="py-10 text-soft">No place is {state} now.</p>
);

/** The one thing that an empty wall asks. */
function FirstPlace({ workspace }: { workspace: string }) {
  return (
    <section className="py-16">
      <h1 className="text-[34px]">Where does it go?</h1>
      <p className="mt-2 mb-5 max-w-[52ch] text-soft">
        Say it in the words of the upload page; Fitzle draws the place to scale and fits your artwork to it.
      </p>
      <Link
        to={`/w/${workspace}/places/new`}
        className="inline-flex min-h-10 items-center rounded-[3px] border border-next bg-next px-4 font-semibold text-on-next hover:opacity-90"
      >
        Say where it goes
      </Link>
    </section>
  );
}

interface SummaryProps {
  wall: Wall;
  only: PlaceState | null;
  setOnly: (state: PlaceState | null) => void;
  workspace: string;
  /** Whether all that moves plays. */
  together: boolean;
  setTogether: (together: boolean) => void;
}

function Summary({ wall, only, setOnly, workspace, together, setTogether }: SummaryProps) {
  const all = wall.shelves.flatMap((shelf) => shelf.placements);
  const count = (state: PlaceState) => all.filter((entry) => entry.state === state).length;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1 className="text-[26px] leading-9">
        {plural(all.length, "place", "places")}, {count("fits") + count("out of date")} fit.
      </h1>
      <div role="group" aria-label="Show only" className="flex flex-wrap gap-4">
        {ORDER.filter((state) => count(state) > 0).map((state) => (
          <Filter
            key={state}
            state={state}
            count={count(state)}
            pressed={only === state}
            onPress={() => setOnly(only === state ? null : state)}
          />
        ))}
      </div>
      <div className="ml-auto flex items-center gap-3">
        {all.some((entry) => entry.seconds != null) && (
          <Button look="bare" aria-pressed={together} onClick={() => setTogether(!together)}>
            {together ? "Stop all" : "Play what moves"}
          </Button>
        )}
        <Link
          to={`/w/${workspace}/places/new`}
          className="inline-flex min-h-8 items-center rounded-[3px] border border-ink px-3 py-1 text-[13px] font-semibold hover:bg-sheet"
        >
          Add a place
        </Link>
        <DeliverLink wall={wall} workspace={workspace} />
      </div>
    </div>
  );
}

interface FilterProps {
  state: PlaceState;
  count: number;
  pressed: boolean;
  onPress: () => void;
}

function Filter({ state, count, pressed, onPress }: FilterProps) {
  const { symbol: Symbol, colour } = STATES[state];
  return (
    <button
      type="button"
      aria-pressed={pressed}
      onClick={onPress}
      className={`inline-flex min-h-7 items-center gap-1.5 border-b-2 text-[13px] font-semibold ${colour} ${pressed ? "border-current" : "border-transparent hover:border-hairline"}`}
    >
      <Symbol aria-hidden size={14} strokeWidth={2.4} />
      {count} {state}
    </button>
  );
}
