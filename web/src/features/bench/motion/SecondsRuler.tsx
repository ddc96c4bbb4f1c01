import { useState } from "react";

import type { FitOut } from "../../../api/client";
import type { Motion, PartMotion, Track } from "../../../api/motionQueries";
import type { Bench } from "../useBench";
import { Bar } from "./Bar";
import { Movements } from "./Movements";
import { edgesOf, shifted, stretched, type Step } from "./steps";

const TICK_S = 0.5;

/** As long as the period, with one line a part: its coming in and going out as bars, what it keeps doing in words. */
export function SecondsRuler({ bench, fit, loop }: { bench: Bench; fit: FitOut; loop: Motion }) {
  const set = (track: Track, motion: PartMotion) => {
    const ground = fit.here[track.part]?.motion as { period?: number } | null | undefined;
    const value = track.ground
      ? { period: ground?.period ?? loop.period, keep: motion.keep ?? null }
      : motion;
    bench.change("motion", [{ part: track.part, field: "motion", value }]);
  };
  const tracks = loop.tracks.map((track) => ({ ...track, motion: unsaved(fit, track) }));
  return (
    <div className="mt-3 grid grid-cols-[minmax(64px,90px)_minmax(0,1fr)] gap-x-3 sm:grid-cols-[minmax(72px,160px)_minmax(0,1fr)] text-[13px]">
      <span />
      <Ticks period={loop.period} />
      {tracks.map((track) => (
        <TrackLine
          key={track.part}
          track={track}
          all={tracks}
          period={loop.period}
          set={(motion) => set(track, motion)}
        />
      ))}
    </div>
  );
}

/** How a part moves with what was changed a moment ago, so that one key after the other counts. */
function unsaved(fit: FitOut, track: Track): PartMotion {
  const part = fit.here[track.part];
  if (!part?.motion) return track.motion;
  return part.role === "ground" ? { ...track.motion, keep: part.motion.keep } : part.motion;
}

function Ticks({ period }: { period: number }) {
  const count = Math.floor(period / TICK_S + 1e-6);
  return (
    <div aria-hidden className="relative h-5 border-b border-ink">
      {Array.from({ length: count + 1 }, (_, tick) => tick * TICK_S).map((seconds) => (
        <span
          key={seconds}
          className="figure absolute bottom-0 border-l border-ink pl-0.5 text-[10px] text-soft"
          style={{ left: `${(100 * seconds) / period}%`, height: seconds % 1 === 0 ? 16 : 6 }}
        >
          {seconds % 1 === 0 && seconds < period - 0.15 ? `${seconds} s` : ""}
        </span>
      ))}
    </div>
  );
}

interface LineProps {
  track: Track;
  all: Track[];
  period: number;
  set: (motion: PartMotion) => void;
}

function TrackLine({ track, all, period, set }: LineProps) {
  const { come, keep, go } = track.motion;
  const [open, setOpen] = useState(false);
  const moves = come || keep || go;
  const begin = come ? come.start + come.length : 0;
  const end = go ? go.start : period;
  const at = (seconds: number) => ({ left: `${(100 * seconds) / period}%` });
  const bar = (name: "come" | "go", step: Step) => (
    <Bar
      key={name}
      label={`${track.name}: ${name === "come" ? "comes in" : "goes out"} ${step.how}`}
      step={step}
      period={period}
      others={edgesOf(
        all.map((one) => one.motion),
        step,
      )}
      shift={(by) => set(shifted(track.motion, name, by, period))}
      stretch={(by) => set(stretched(track.motion, name, by, period))}
    />
  );
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        aria-label={`${track.name}: how it moves`}
        title={track.name}
        onClick={() => setOpen(!open)}
        className="min-h-6 self-end truncate border-b border-hairline pr-1 text-left text-measure hover:border-measure"
      >
        {track.name}
      </button>
      <div className="relative h-11 border-b border-hairline">
        <span
          aria-hidden
          className="absolute top-[29px] h-px bg-ink"
          style={{
            left: `${(100 * begin) / period}%`,
            width: `${(100 * Math.max(0, end - begin)) / period}%`,
          }}
        />
        <span
          className="figure absolute top-0.5 right-10 truncate text-[11px] text-soft"
          style={at(come?.start ?? 0)}
        >
          {moves
            ? [come?.how, keep && `keeps on: ${keep.how}`].filter(Boolean).join(", then ")
            : "stands still"}
        </span>
        {go && (
          <span className="figure absolute top-0.5 right-0 text-[11px] whitespace-nowrap text-soft">
            {go.how}
          </span>
        )}
        {come && bar("come", come)}
        {go && bar("go", go)}
      </div>
      {open && <Movements track={track} set={set} />}
    </>
  );
}
