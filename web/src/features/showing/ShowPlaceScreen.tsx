import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useParams, useSearchParams } from "react-router";

import { answerLearnt, learnPlace } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { deliveredQuery } from "../../api/deliveryQueries";
import { learningQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { Keep } from "../places/Keep";
import { SheetEditor } from "../places/sheet/SheetEditor";
import { WithDraft } from "../places/sheet/WithDraft";
import { BoxFields } from "./BoxFields";
import { FileFrame, useAddress } from "../../ui/FileFrame";
import { Facts, Questions } from "./Learnt";
import { ShotView, type DrawnBox } from "./ShotView";

type Learning = Schemas["LearningOut"];
const DENSITIES = [1, 1.5, 2, 3];

/** A place by showing it: the picture that was uploaded, and a screenshot of where it appears. */
export function ShowPlaceScreen() {
  const { workspace = "" } = useParams();
  const [picture, setPicture] = useState<File | null>(null);
  const [screenshot, setScreenshot] = useState<File | null>(null);
  const [density, setDensity] = useState(1);
  const [box, setBox] = useState<DrawnBox | null>(null);
  const [chosen, setChosen] = useState(0);
  const begin = useMutation({ mutationFn: learnPlace.bind(null, workspace) });
  const learning = useQuery({
    ...learningQuery(workspace, begin.data?.id ?? ""),
    enabled: begin.data !== undefined,
  });
  useDelivered(workspace, useSearchParams()[0].get("file"), setPicture);
  const pictureAddress = useAddress(picture);
  const address = useAddress(screenshot);
  const drawing = picture === null;
  const found = begin.data ? learning.data : undefined;
  const again = () => {
    begin.reset();
    setChosen(0);
  };
  const ready = screenshot !== null && (!drawing || (box !== null && box.width > 7 && box.height > 7));
  return (
    <main className="grid gap-x-12 gap-y-8 px-7 pt-5 pb-10 xl:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
        <header>
          <h1 className="text-[30px] leading-10">Show where it goes</h1>
          <p className="mt-1 max-w-[64ch] text-soft">
            The picture as it was uploaded, and a screenshot of the page that shows it. Fitzle reads off how
            large it is seen, how it is cut, darkened and covered.
          </p>
        </header>
        <FileFrame
          title="The picture"
          hint="as it was uploaded; without it, draw a box on the screenshot"
          file={picture}
          choose={(file) => {
            setPicture(file);
            again();
          }}
        >
          {pictureAddress && <img src={pictureAddress} alt="" className="mt-3 block max-h-32 max-w-full" />}
        </FileFrame>
        <FileFrame
          title="The screenshot"
          hint="of the place where it appears"
          file={screenshot}
          choose={(file) => {
            setScreenshot(file);
            setBox(null);
            again();
          }}
        >
          {address && (
            <ShotView
              address={address}
              places={found?.places ?? []}
              chosen={chosen}
              choose={setChosen}
              drawn={drawing ? box : null}
              draw={drawing ? setBox : undefined}
            />
          )}
          {address && drawing && <BoxFields box={box} change={setBox} />}
        </FileFrame>
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <label className="text-[13px] text-soft">
            The screen had{" "}
            <select
              value={density}
              onChange={(event) => {
                setDensity(Number(event.target.value));
                again();
              }}
              className="min-h-7 border-b border-ink bg-transparent text-ink [&>option]:bg-sheet"
            >
              {DENSITIES.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </select>{" "}
            px for each px of the page
          </label>
          <Button
            look={found?.places.length ? "plain" : "next"}
            className="ml-auto"
            disabled={!ready || begin.isPending || (begin.data !== undefined && !found?.done)}
            onClick={() =>
              begin.mutate({ picture, screenshot: screenshot!, density, box: drawing ? box : null })
            }
          >
            {drawing ? "Read it off" : "Look for it"}
          </Button>
        </div>
        {begin.error && <Problem message={begin.error.message} onDismiss={begin.reset} />}
        {begin.data && !found?.done && <Looking percent={found?.progress ?? 0} />}
        {found?.message && <Problem message={found.message} onDismiss={again} />}
      </div>
      <section aria-label="What was learnt" className="min-w-0">
        {!found?.places[chosen] && (
          <p className="border-t border-dashed border-strong pt-4 text-soft max-xl:hidden">
            What was read off, and the sheet that comes of it, stand here then.
          </p>
        )}
        {found?.done && found.places[chosen] && (
          <Result key={`${found.id} ${chosen}`} workspace={workspace} learning={found} number={chosen} />
        )}
      </section>
    </main>
  );
}

/** The picture is one that was handed over. */
function useDelivered(workspace: string, file: string | null, choose: (file: File) => void) {
  const given = useQuery({ ...deliveredQuery(workspace, file ?? ""), enabled: file !== null });
  useEffect(() => {
    if (given.data) choose(given.data);
  }, [given.data, choose]);
}

function Looking({ percent }: { percent: number }) {
  return (
    <div role="status">
      <span className="figure text-soft">Looking for it, {percent} %</span>
      <progress value={percent} max={100} aria-label="Looking for it" className="block h-1 w-full" />
    </div>
  );
}

/** One place that was found: its figures, what has to be asked, and the sheet that comes of it. */
function Result({ workspace, learning, number }: { workspace: string; learning: Learning; number: number }) {
  const place = learning.places[number]!;
  const [answers, setAnswers] = useState<Schemas["Answers"]>({ veil: null, cut: null, strip: null });
  const [agreed, setAgreed] = useState(!place.relative);
  const answered = useMutation({
    mutationFn: (given: Schemas["Answers"]) => answerLearnt(workspace, learning.id, number, given),
  });
  const sheet = answered.data ?? place.shown;
  if (!agreed)
    return (
      <div className="grid gap-3 border-l-2 border-risky pl-4">
        <p className="font-semibold">
          This looks like your picture, but with other words on it: perhaps another one of the same series.
        </p>
        <p>Its place may be the same all the same. Is it?</p>
        <Button className="justify-self-start" onClick={() => setAgreed(true)}>
          It is the same place
        </Button>
      </div>
    );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-7">
      {learning.places.length > 1 && (
        <p className="text-soft">
          Place {number + 1} of {learning.places.length} in this screenshot. Click another one to take that.
        </p>
      )}
      <Questions
        place={place}
        answers={answers}
        answer={(given) => {
          setAnswers(given);
          answered.mutate(given);
        }}
      />
      <WithDraft workspace={workspace} sheet={sheet}>
        {(draft) => (
          <>
            <Keep
              key={draft.shown.name}
              workspace={workspace}
              sheet={draft.shown}
              busy={!draft.sound}
              learnt={{ learning: learning.id, found: number }}
            />
            <Facts place={place} />
            <SheetEditor draft={draft} />
          </>
        )}
      </WithDraft>
    </div>
  );
}
