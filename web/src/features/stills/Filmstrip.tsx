import { Slider } from "radix-ui";
import { useRef, type PointerEvent } from "react";

import type { Schemas } from "../../api/client";
import { stripUrl } from "../../api/queries";
import { clock } from "../../measure/clock";
import type { Clip } from "./useClip";

interface Props {
  workspace: string;
  artwork: string;
  stills: Schemas["StillsOut"];
  clip: Clip;
}

const STEP_SECONDS = 0.01;
const TALL_PX = 54;

/** Frames from all over the clip, and the whole of its time as a line to slide along. */
export function Filmstrip({ workspace, artwork, stills, clip }: Props) {
  const held = useRef(false);
  const count = stills.strip.length;
  const ratio = stills.width / stills.height;
  const scrub = (event: PointerEvent) => {
    const frame = event.currentTarget.getBoundingClientRect();
    const index = Math.floor(((event.clientX - frame.left) / frame.width) * count);
    const at = stills.strip[Math.min(Math.max(index, 0), count - 1)];
    if (at !== undefined) clip.go(at);
  };
  const near = stills.strip.reduce((best, at, index) => (at <= clip.at + 1e-6 ? index : best), 0);
  return (
    <div className="@container mt-4">
      <div
        className="relative cursor-pointer touch-none overflow-hidden"
        style={{ height: TALL_PX }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = true;
          scrub(event);
        }}
        onPointerMove={(event) => held.current && scrub(event)}
        onPointerUp={() => (held.current = false)}
      >
        <div role="img" aria-label={`${count} frames from all over the clip`} className="flex h-full">
          {stills.strip.map((at, index) => (
            <Slice key={at} url={stripUrl(workspace, artwork)} index={index} count={count} ratio={ratio} />
          ))}
        </div>
        <span
          aria-hidden
          className="absolute inset-y-0 border-2 border-measure"
          style={{ left: `${(near / count) * 100}%`, width: `${100 / count}%` }}
        />
      </div>
      <Slider.Root
        min={0}
        max={stills.seconds}
        step={STEP_SECONDS}
        value={[clip.at]}
        onValueChange={([at]) => clip.go(at!)}
        className="relative mt-1 flex h-6 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-[7px] grow border-x border-measure">
          <span className="absolute inset-x-0 top-[3px] border-t border-measure" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="Moment"
          aria-valuetext={clock(clip.at)}
          className="block h-5 w-1.5 bg-measure outline-offset-2"
        />
      </Slider.Root>
      <div className="figure flex justify-between text-soft">
        <span>0:00.00</span>
        <span>{clock(stills.seconds)}</span>
      </div>
    </div>
  );
}

interface SliceProps {
  url: string;
  index: number;
  count: number;
  ratio: number;
}

/** The middle of one frame of the strip, as wide as there is room; nothing is squeezed. */
function Slice({ url, index, count, ratio }: SliceProps) {
  const wide = TALL_PX * ratio;
  return (
    <span
      className="h-full min-w-0 flex-1 overflow-hidden border-r border-paper last:border-r-0"
      style={{
        backgroundImage: `url(${url})`,
        backgroundSize: `${wide * count}px ${TALL_PX}px`,
        backgroundPositionX: `calc(${-index * wide}px + (100cqw / ${count} - ${wide}px) / 2)`,
      }}
    />
  );
}
