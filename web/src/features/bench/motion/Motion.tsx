import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type { FitOut } from "../../../api/client";
import { momentUrl, motionQuery, playingUrl, type Motion as Loop } from "../../../api/motionQueries";
import { Button } from "../../../ui/Button";
import { isTyping } from "../../../ui/isTyping";
import { SteadyImage } from "../../../ui/SteadyImage";
import type { Bench } from "../useBench";
import { SecondsRuler } from "./SecondsRuler";

const USUAL = 0.5;
const STEP = 0.25;
const PLAYED_PX = 720;
const MOMENT_S = 0.05;

/** Where a place takes pictures that move: what moves when, on a ruler of seconds, and the loop to be watched. */
export function Motion({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const { data: loop } = useQuery({
    ...motionQuery(bench.workspace, fit.id, fit.piece.revision),
    enabled: fit.sheet.motion.allowed,
  });
  const [lively, setLively] = useState(USUAL);
  if (!fit.sheet.motion.allowed || !loop?.allowed) return null;
  const move = (liveliness: number | null) => {
    if (liveliness !== null) setLively(liveliness);
    bench.move(liveliness);
  };
  return (
    <section aria-labelledby="motion" className="mt-6 pl-3.5">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h2 id="motion" className="text-[14px]">
          Motion
        </h2>
        {loop.moves && <Figures loop={loop} />}
        <span className="ml-auto flex flex-wrap gap-2">
          {loop.tracks.length === 0 ? (
            <Button onClick={() => move(USUAL)}>Let its parts move</Button>
          ) : (
            <>
              <Button look="quiet" disabled={lively <= 0} onClick={() => move(Math.max(0, lively - STEP))}>
                Calmer
              </Button>
              <Button look="quiet" disabled={lively >= 1} onClick={() => move(Math.min(1, lively + STEP))}>
                Livelier
              </Button>
              <Button look="quiet" onClick={() => move(null)}>
                Stand still
              </Button>
            </>
          )}
        </span>
      </div>
      {!loop.moves && (
        <p className="mt-1 max-w-[60ch] text-[13px] text-soft">
          This place takes a picture that moves. Parts come in one after the other and stay to be read; the
          file begins with all of them in.
        </p>
      )}
      {loop.tracks.length > 0 && <SecondsRuler bench={bench} fit={fit} loop={loop} />}
      {loop.moves && <Watch bench={bench} fit={fit} loop={loop} />}
    </section>
  );
}

function Figures({ loop }: { loop: Loop }) {
  return (
    <span className="figure text-soft">
      {loop.period.toFixed(2)} s
      {loop.tracks.length > 0 && `, words in for ${Math.round(loop.read * 100)} % of it`}
    </span>
  );
}

/** The loop: played once somebody asks for it, else the moment under the playhead. */
function Watch({ bench, fit, loop }: { bench: Bench; fit: FitOut; loop: Loop }) {
  const [playing, setPlaying] = useState(false);
  const [at, setAt] = useState<number | null>(null);
  usePlayKey(() => setPlaying((now) => !now));
  const key = `${fit.piece.revision}`;
  const moment = at === null ? null : Math.min(at, loop.period);
  const shown = playing
    ? playingUrl(bench.workspace, fit.id, key, PLAYED_PX)
    : moment !== null && momentUrl(bench.workspace, fit.id, key, moment, PLAYED_PX);
  return (
    <>
      <div className="grid grid-cols-[minmax(64px,90px)_minmax(0,1fr)] sm:grid-cols-[minmax(72px,160px)_minmax(0,1fr)] items-center gap-x-3 text-[13px]">
        <span className="figure text-soft">{moment === null ? "a moment" : `at ${moment.toFixed(2)} s`}</span>
        <input
          type="range"
          aria-label="The moment that is shown, in seconds"
          min={0}
          max={loop.period}
          step={MOMENT_S}
          value={moment ?? loop.begin}
          onChange={(event) => {
            setPlaying(false);
            setAt(Number(event.target.value));
          }}
          className="h-8 w-full accent-measure"
        />
      </div>
      <Button look="plain" className="mt-1" aria-pressed={playing} onClick={() => setPlaying(!playing)}>
        {playing ? "Stop" : "Play it"}
      </Button>
      {shown && (
        <figure className="mt-2" style={{ background: fit.sheet.grounds[0], maxWidth: fit.width }}>
          <SteadyImage
            src={shown}
            alt={`${fit.piece.document.subject}, ${playing ? "playing" : `at ${moment?.toFixed(2)} s`}`}
            className="block w-full"
          />
        </figure>
      )}
    </>
  );
}

/** Space plays and stops, unless somebody types or is on something that Space presses. */
function usePlayKey(toggle: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const pressed =
        event.target instanceof Element && event.target.closest("button, a, input, select, [role]");
      if (event.key !== " " || pressed || isTyping(event.target)) return;
      event.preventDefault();
      toggle();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}
