import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useRef, useState, type DragEvent } from "react";

import type { FitOut } from "../../../api/client";
import { framesUrl, motionQuery } from "../../../api/motionQueries";
import { partUrl, proofUrl } from "../../../api/queries";
import { Dimension } from "../../../ui/Dimension";
import { SteadyImage } from "../../../ui/SteadyImage";
import { useWindowHeight } from "../../../ui/useWindow";
import { useUploads } from "../../../ui/useUploads";
import { ARTWORK_TYPE } from "../AddPart";
import { useBenchKeys } from "../useBenchKeys";
import { Playing } from "../motion/Playing";
import { pictureAt, type Time } from "../motion/time";
import type { Bench } from "../useBench";
import { Carried, usePrepared } from "./Carried";
import { GradientLine } from "./GradientLine";
import { Masked } from "../../../ui/Mask";
import { AsSeen, Marks } from "./Marks";
import { PartLayer } from "./PartLayer";
import { Picking } from "./Picking";
import { Ruler } from "../../../ui/Ruler";
import { SelectionFrame } from "./SelectionFrame";
import { useGesture } from "./useGesture";
import { WordsEditor } from "./WordsEditor";

const LEAST_TALL_PX = 380;
const BESIDE_PX = 420; // what stands above and below the proof on the screen
const RULER_PX = 14;
const MOST_MAGNIFIED = 16;
const SMALL_SIDE_PX = 512; // a file with a shorter side is magnified up to that

interface Props {
  bench: Bench;
  fit: FitOut;
  /** What of a loop is shown. */
  time: Time;
}

export function Stage({ bench, fit, time }: Props) {
  const room = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(600);
  const [asSeen, setAsSeen] = useState(false);
  const tall = Math.max(LEAST_TALL_PX, useWindowHeight() - BESIDE_PX);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width - RULER_PX));
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);
  const scale = Math.min(width / fit.width, tall / fit.height, mostMagnified(fit));
  const w = fit.width * scale;
  const sharp = Math.min(w * Math.max(1.5, devicePixelRatio), Math.max(fit.width, w));
  const drawn = Math.round(scale >= 2 ? fit.width : sharp);
  const { drawProofAt } = bench;
  useLayoutEffect(() => drawProofAt(drawn), [drawProofAt, drawn]);
  return (
    <section aria-label="Proof" ref={room}>
      <div
        className="flex flex-wrap items-baseline justify-between gap-x-4 pb-1.5"
        style={{ paddingLeft: RULER_PX }}
      >
        <span className="figure text-soft">
          {fit.sheet.destination} · {fit.sheet.name}
        </span>
        <ViewSwitch asSeen={asSeen} setAsSeen={setAsSeen} scale={scale} />
      </div>
      <div style={{ paddingLeft: RULER_PX }}>
        <Ruler length={fit.width} scale={scale} side="top" />
      </div>
      <div className="flex">
        <Ruler length={fit.height} scale={scale} side="left" />
        <Proof bench={bench} fit={fit} scale={scale} drawn={drawn} asSeen={asSeen} time={time} />
      </div>
      <div style={{ paddingLeft: RULER_PX, width: w + RULER_PX }} className="mt-1.5">
        <Dimension width={w} figure={`${fit.width} × ${fit.height} px`} />
      </div>
    </section>
  );
}

/** Up to its own px, and more for what is small: there single px are looked at. */
const mostMagnified = (fit: FitOut) =>
  Math.max(1, Math.min(MOST_MAGNIFIED, SMALL_SIDE_PX / Math.min(fit.width, fit.height)));

interface ProofProps {
  bench: Bench;
  fit: FitOut;
  scale: number;
  drawn: number;
  asSeen: boolean;
  time: Time;
}

/** The proof and everything that can be done on it. */
function Proof({ bench, fit, scale, drawn, asSeen, time }: ProofProps) {
  const gestures = useGesture(bench, fit, scale);
  useBenchKeys(bench, fit, gestures);
  const [pointed, setPointed] = useState<string | null>(null);
  usePrepared(bench, fit, drawn, pointed);
  const drop = useDrop(bench, fit);
  const { gesture } = gestures;
  const typed = fit.parts.find((part) => part.words && bench.selection.inside === part.part);
  const away = gesture?.parts.map((part) => part.part).join(",") ?? typed?.part;
  const whole = bench.proofAt(fit.key, drawn);
  const moment = pictureAt(bench.workspace, fit.id, fit.piece.revision, time, drawn);
  const shown = away
    ? partUrl(proofUrl(bench.workspace, fit.id, fit.key, drawn), "without", away)
    : (moment ?? whole);
  const revision = `${fit.piece.revision}`;
  const loop = usePlayed(bench, fit, time);
  const look = {
    alt: `Proof of ${fit.sheet.name}${wordsFor(time)}`,
    className: "block h-full w-full",
    style: { imageRendering: scale >= 2 ? "pixelated" : "auto" } as const,
  };
  const clear = !fit.ground && fit.piece.document.parts[0]?.role === "ground" ? "checker" : "";
  return (
    <div
      data-stage
      className={`relative shrink-0 overflow-visible outline outline-hairline ${asSeen ? "" : clear} ${drop.over ? "outline-2 outline-measure" : ""}`}
      style={{
        width: fit.width * scale,
        height: fit.height * scale,
        background: asSeen ? fit.sheet.grounds[0] : undefined,
      }}
      onPointerDown={() => bench.selection.select([])}
      {...drop.handlers}
    >
      <Masked mask={asSeen ? fit.mask : null} className="absolute inset-0 overflow-hidden">
        {loop && !away ? (
          <Playing
            urlOf={(first, count) => framesUrl(bench.workspace, fit.id, revision, drawn, first, count)}
            total={loop.frames}
            period={loop.period}
            still={whole}
            {...look}
          />
        ) : (
          <SteadyImage src={shown} {...look} />
        )}
        {gesture && <Carried bench={bench} fit={fit} gesture={gesture} scale={scale} drawn={drawn} />}
        {asSeen && <AsSeen fit={fit} />}
      </Masked>
      {!asSeen && (
        <>
          <Marks fit={fit} scale={scale} bare={gesture !== null || bench.selection.ids.length > 0} />
          <PartLayer bench={bench} fit={fit} scale={scale} gestures={gestures} pointAt={setPointed} />
          <SelectionFrame bench={bench} fit={fit} scale={scale} gestures={gestures} />
          <GradientLine bench={bench} fit={fit} scale={scale} />
          {typed && <WordsEditor key={typed.part} bench={bench} fit={fit} part={typed} scale={scale} />}
        </>
      )}
      <Picking bench={bench} src={whole} />
    </div>
  );
}

/** The loop that is to be watched; null while none is. */
function usePlayed(bench: Bench, fit: FitOut, time: Time) {
  const { data: loop } = useQuery({
    ...motionQuery(bench.workspace, fit.id, fit.piece.revision),
    enabled: time.playing,
  });
  return time.playing && loop?.moves ? loop : null;
}

const wordsFor = (time: Time) =>
  time.playing ? ", playing" : time.at === null ? "" : ` at ${time.at.toFixed(2)} s`;

interface Target {
  x: number;
  y: number;
  /** The picture whose place is taken; none: a new part with its middle at (x, y), in fractions. */
  instead?: string;
}

/** Files and artwork dropped on the proof become a part where they were dropped; on a picture they take its place. */
function useDrop(bench: Bench, fit: FitOut) {
  const [over, setOver] = useState(false);
  const { bring } = useUploads();
  return {
    over,
    handlers: {
      onDragOver: (event: DragEvent) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        event.preventDefault();
        setOver(false);
        const target = targetOf(event, fit);
        const artwork = event.dataTransfer.getData(ARTWORK_TYPE);
        if (artwork) bench.add({ artwork, ...target });
        else bring([...event.dataTransfer.files], [wordsOf(target, fit)]);
      },
    },
  };
}

function targetOf(event: DragEvent, fit: FitOut): Target {
  const frame = event.currentTarget.getBoundingClientRect();
  const within = (share: number) => Math.min(1, Math.max(0, share));
  const x = within((event.clientX - frame.left) / frame.width);
  const y = within((event.clientY - frame.top) / frame.height);
  const hit = [...fit.parts].reverse().find(({ box, artwork }) => {
    const [px, py] = [x * fit.width, y * fit.height];
    const inside = px >= box.x && px <= box.x + box.width && py >= box.y && py <= box.y + box.height;
    return artwork && inside && (box.width < fit.width || box.height < fit.height);
  });
  return { x, y, instead: hit?.part };
}

/** The same for a file that has to be read first. */
const wordsOf = ({ x, y, instead }: Target, fit: FitOut) =>
  instead ? `instead/${fit.id}/${instead}` : `into/${fit.id}/${x.toFixed(4)}/${y.toFixed(4)}`;

interface SwitchProps {
  asSeen: boolean;
  setAsSeen: (value: boolean) => void;
  scale: number;
}

function ViewSwitch({ asSeen, setAsSeen, scale }: SwitchProps) {
  const look = (on: boolean) => `min-h-6 ${on ? "font-semibold text-ink" : "text-soft hover:text-ink"}`;
  const words =
    scale >= 1 ? `magnified ${Math.round(scale * 10) / 10} ×` : `drawn at ${Math.round(scale * 100)} %`;
  return (
    <div className="flex items-baseline gap-4 text-[13px] whitespace-nowrap">
      <span className="figure text-soft">{words}</span>
      <button type="button" aria-pressed={!asSeen} className={look(!asSeen)} onClick={() => setAsSeen(false)}>
        as delivered
      </button>
      <button type="button" aria-pressed={asSeen} className={look(asSeen)} onClick={() => setAsSeen(true)}>
        as shown there
      </button>
    </div>
  );
}
