import { Pause, Play, StepBack, StepForward } from "lucide-react";
import { useEffect, useRef } from "react";

import type { Schemas } from "../../api/client";
import { clipUrl, frameUrl } from "../../api/queries";
import { clock } from "../../measure/clock";
import { Button } from "../../ui/Button";
import { SteadyImage } from "../../ui/SteadyImage";
import type { Clip } from "./useClip";

interface Props {
  workspace: string;
  artwork: string;
  stills: Schemas["StillsOut"];
  clip: Clip;
  kept: boolean;
  keep: () => void;
  width: number;
}

const TALLEST_PX = 372;

/** The frame that is shown, large, with its exact moment; or the clip playing. */
export function FrameView({ workspace, artwork, stills, clip, kept, keep, width }: Props) {
  const ratio = stills.width / stills.height;
  return (
    <div>
      <div className="relative max-w-full" style={{ width: TALLEST_PX * ratio, aspectRatio: ratio }}>
        <SteadyImage
          src={frameUrl(workspace, artwork, clip.at, width)}
          alt={`The frame at ${clock(clip.at)}`}
          className="block h-full w-full object-contain"
        />
        {clip.playing === "browser" && <Player workspace={workspace} artwork={artwork} clip={clip} />}
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Button
          look="quiet"
          aria-label="One frame back"
          title="One frame back (←)"
          onClick={() => clip.step(-1)}
        >
          <StepBack aria-hidden size={14} />
        </Button>
        <Button look="quiet" onClick={clip.playing ? clip.pause : clip.play}>
          {clip.playing ? <Pause aria-hidden size={14} /> : <Play aria-hidden size={14} />}
          {clip.playing ? "Pause" : "Play"}
        </Button>
        <Button look="quiet" aria-label="One frame on" title="One frame on (→)" onClick={() => clip.step(1)}>
          <StepForward aria-hidden size={14} />
        </Button>
        <span className="figure text-[13px]! text-measure" role="status">
          {clock(clip.at)}
        </span>
        {clip.playing === "frames" && (
          <span className="text-[12px] text-soft">
            Your browser does not play this kind of clip: it is shown frame by frame.
          </span>
        )}
        <Button look={kept ? "quiet" : "next"} className="ml-auto" disabled={!clip.exact} onClick={keep}>
          {kept ? "Kept; put it away" : "Keep this frame"}
        </Button>
      </div>
    </div>
  );
}

function Player({ workspace, artwork, clip }: Pick<Props, "workspace" | "artwork" | "clip">) {
  const video = useRef<HTMLVideoElement>(null);
  const from = useRef(clip.at);
  useEffect(() => {
    const player = video.current!;
    player.currentTime = from.current;
    player.play().catch(() => undefined); // where it cannot, its error event says so
  }, []);
  return (
    <video
      ref={video}
      src={clipUrl(workspace, artwork)}
      muted
      playsInline
      className="absolute inset-0 h-full w-full object-contain"
      onTimeUpdate={(event) => clip.follow(event.currentTarget.currentTime)}
      onEnded={clip.pause}
      onError={clip.cannotPlay}
    />
  );
}
