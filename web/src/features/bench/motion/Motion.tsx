import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type { FitOut } from "../../../api/client";
import { motionQuery, type Motion as Loop } from "../../../api/motionQueries";
import { Button } from "../../../ui/Button";
import { isTyping } from "../../../ui/isTyping";
import type { Bench } from "../useBench";
import { SecondsRuler } from "./SecondsRuler";
import { ALL_IN, type Time } from "./time";

const USUAL = 0.5;
const STEP = 0.25;
const MOMENT_S = 0.05;

interface Props {
  bench: Bench;
  fit: FitOut;
  time: Time;
  setTime: (time: Time) => void;
}

/** Where a place takes pictures that move: what moves when, on a ruler of seconds, and the playhead. */
export function Motion({ bench, fit, time, setTime }: Props) {
  const { data: loop } = useQuery({
    ...motionQuery(bench.workspace, fit.id, fit.piece.revision),
    enabled: fit.sheet.motion.allowed,
  });
  const [lively, setLively] = useState(USUAL);
  if (!fit.sheet.motion.allowed || !loop?.allowed) return null;
  const move = (liveliness: number | null) => {
    if (liveliness === null) setTime(ALL_IN);
    else setLively(liveliness);
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
      {loop.moves && <Watch loop={loop} time={time} setTime={setTime} />}
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

interface WatchProps {
  loop: Loop;
  time: Time;
  setTime: (time: Time) => void;
}

/** The playhead: the proof above shows its moment, where parts can be moved as at rest, or plays. */
function Watch({ loop, time, setTime }: WatchProps) {
  const { playing } = time;
  const toggle = () => setTime({ at: null, playing: !playing });
  usePlayKey(toggle);
  const at = time.at === null ? null : Math.min(time.at, loop.period);
  return (
    <>
      <div className="grid grid-cols-[minmax(64px,90px)_minmax(0,1fr)] items-center gap-x-3 text-[13px] sm:grid-cols-[minmax(72px,160px)_minmax(0,1fr)]">
        <span className="figure text-soft">{at === null ? "all are in" : `at ${at.toFixed(2)} s`}</span>
        <input
          type="range"
          aria-label="The moment that is shown, in seconds"
          min={0}
          max={loop.period}
          step={MOMENT_S}
          value={at ?? loop.begin}
          onChange={(event) => setTime({ at: Number(event.target.value), playing: false })}
          className="h-8 w-full accent-measure"
        />
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-4">
        <Button look="plain" aria-pressed={playing} onClick={toggle}>
          {playing ? "Stop" : "Play it"}
        </Button>
        {at !== null && (
          <Button look="bare" onClick={() => setTime(ALL_IN)}>
            Show all parts in
          </Button>
        )}
      </div>
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
