import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";

import { placeArtwork, takeHouseStyle } from "../../api/actions";
import type { ArtworkOut } from "../../api/client";
import { artworkQuery, isChoosable, isOnItsWay } from "../../api/queries";
import { Examples } from "../places/Examples";
import { Heard } from "../places/Heard";
import { Keep } from "../places/Keep";
import { SheetEditor } from "../places/sheet/SheetEditor";
import { WithDraft } from "../places/sheet/WithDraft";
import { useReading } from "../places/useReading";
import { WordsField } from "../places/WordsField";
import { Problem } from "../../ui/Trouble";
import { FirstLogo } from "./FirstLogo";

/** The first minutes of a workspace on one page: a logo, if there is one, and where it goes. */
export function BeginScreen() {
  const { workspace = "" } = useParams();
  const queries = useQueryClient();
  const [words, setWords] = useState("");
  const [takes, setTakes] = useState(true);
  const { read, readOf, error } = useReading(workspace, words);
  const artwork = useQuery(artworkQuery(workspace)).data?.filter((entry) => !entry.put_away) ?? [];
  const logo = artwork.at(-1); // the first that came in
  const usable = logo && isChoosable(logo) ? logo : undefined;
  const sheet = words.trim() ? read?.sheet : undefined;
  const fill = async (place: string) => {
    if (!usable) return;
    if (takes) {
      await takeHouseStyle(workspace, usable.id);
      await settled(() => queries.fetchQuery({ ...artworkQuery(workspace), staleTime: 0 }));
    }
    await placeArtwork(workspace, usable.id, [place]);
  };
  return (
    <main className="grid gap-x-14 gap-y-10 px-7 pt-5 pb-10 xl:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
      <FirstLogo workspace={workspace} logo={logo} takes={takes} setTakes={setTakes} />
      <section aria-labelledby="where">
        <h2 id="where" className="text-[26px] leading-9">
          Where does it go?
        </h2>
        <p className="mt-1 mb-4 max-w-[56ch] text-soft">
          What the upload page or its help says is enough: size, shape, formats, weight, and how it is shown.
        </p>
        <WordsField words={words} setWords={setWords} read={read} readOf={readOf} />
        {error && <Problem message={error.message} />}
        {read && <Heard read={read} />}
        {!words.trim() && <Examples choose={setWords} />}
        {sheet && (
          <div className="mt-6 grid gap-6">
            <WithDraft workspace={workspace} sheet={sheet}>
              {(draft) => (
                <>
                  <Keep
                    key={draft.shown.name}
                    workspace={workspace}
                    sheet={draft.shown}
                    words={usable ? `Put it on the wall with ${usable.name}` : "Put it on the wall"}
                    then={fill}
                    busy={!draft.sound || (logo ? isOnItsWay(logo) : false)}
                  />
                  <SheetEditor draft={draft} />
                </>
              )}
            </WithDraft>
          </div>
        )}
        <p className="mt-6 flex flex-wrap gap-x-6 text-[13px]">
          <Link to={`/w/${workspace}/places/new`} className="font-semibold text-measure hover:underline">
            Choose a usual kind of place instead
          </Link>
          <Link to={`/w/${workspace}`} className="font-semibold text-measure hover:underline">
            Later: to the empty wall
          </Link>
        </p>
      </section>
    </main>
  );
}

const TRIES = 20;
const PAUSE_MS = 300;

/** Waits until nothing is being prepared: a version that comes after a delivery would make that out of date. */
async function settled(look: () => Promise<ArtworkOut[]>): Promise<void> {
  for (let tries = 0; tries < TRIES; tries++) {
    if (!(await look()).some(isOnItsWay)) return;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}
