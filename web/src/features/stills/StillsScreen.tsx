import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";

import { takeStills } from "../../api/clipActions";
import type { Schemas } from "../../api/client";
import { frameUrl, stillsQuery } from "../../api/queries";
import { clock } from "../../measure/clock";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { isTyping } from "../../ui/isTyping";
import { Problem, Trouble } from "../../ui/Trouble";
import { Filmstrip } from "./Filmstrip";
import { FrameView } from "./FrameView";
import { LoopMaker } from "./LoopMaker";
import { useClip, type Clip } from "./useClip";

type Stills = Schemas["StillsOut"];
const FRAME_PX = 1120; // how wide a frame is asked for

/** A clip to take stills from: by its filmstrip, frame by frame, or from what is proposed. */
export function StillsScreen() {
  const { workspace = "", artwork = "" } = useParams();
  const stills = useQuery(stillsQuery(workspace, artwork));
  if (stills.error && !stills.data) return <Trouble error={stills.error} />;
  if (!stills.data) return <main aria-busy className="px-7 py-10" />;
  return <Loaded workspace={workspace} artwork={artwork} stills={stills.data} />;
}

interface Props {
  workspace: string;
  artwork: string;
  stills: Stills;
}

function Loaded({ workspace, artwork, stills }: Props) {
  const clip = useClip(workspace, artwork, stills.seconds, FRAME_PX);
  const [kept, setKept] = useState<number[]>([]);
  const keep = (at: number) =>
    setKept((all) =>
      all.includes(at) ? all.filter((one) => one !== at) : [...all, at].sort((a, b) => a - b),
    );
  useKeys(clip, () => clip.exact && keep(clip.at));
  return (
    <main className="px-7 pt-3 pb-8">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h1 className="text-[22px] leading-8">
          {stills.name}
          <span className="text-soft">
            , {clock(stills.seconds)} long, {Math.round(stills.width)} × {Math.round(stills.height)} px
          </span>
        </h1>
        <Link
          to={`/w/${workspace}/artwork?chosen=${artwork}`}
          className="ml-auto inline-flex min-h-8 items-center px-2 text-[13px] text-soft hover:text-ink hover:underline"
        >
          Back to the artwork
        </Link>
      </div>
      <div className="mt-3 grid gap-x-9 gap-y-6 lg:grid-cols-[minmax(0,1fr)_286px]">
        <div className="min-w-0">
          <FrameView
            workspace={workspace}
            artwork={artwork}
            stills={stills}
            clip={clip}
            kept={kept.includes(clip.at)}
            keep={() => keep(clip.at)}
            width={FRAME_PX}
          />
          <Filmstrip workspace={workspace} artwork={artwork} stills={stills} clip={clip} />
          <LoopMaker workspace={workspace} artwork={artwork} stills={stills} clip={clip} />
          <Proposals
            workspace={workspace}
            artwork={artwork}
            stills={stills}
            clip={clip}
            kept={kept}
            keep={keep}
          />
        </div>
        <Kept
          workspace={workspace}
          artwork={artwork}
          stills={stills}
          kept={kept}
          setKept={setKept}
          clip={clip}
        />
      </div>
    </main>
  );
}

function useKeys(clip: Clip, keep: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (isTyping(target) || event.ctrlKey || event.metaKey || event.altKey) return;
      const onButton = target.closest("button, a, [role='slider']") !== null;
      if (event.key === "," || event.key === ".") clip.step(event.key === "." ? 1 : -1);
      else if (event.key === "ArrowRight" && !onButton) clip.step(1);
      else if (event.key === "ArrowLeft" && !onButton) clip.step(-1);
      else if (event.key === " " && !onButton) (clip.playing ? clip.pause : clip.play)();
      else if (event.key === "Enter" && !onButton) keep();
      else return;
      event.preventDefault();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}

const REASONS = (eyes: boolean | null | undefined) =>
  eyes === true ? "sharp, eyes open" : eyes === false ? "sharp, eyes closed" : "the sharpest of its scene";

interface ChoiceProps extends Props {
  clip: Clip;
  kept: number[];
  keep: (at: number) => void;
}

function Proposals({ workspace, artwork, stills, clip, kept, keep }: ChoiceProps) {
  return (
    <section aria-labelledby="proposed" className="mt-5">
      <h2 id="proposed" className="text-[14px]">
        {stills.proposals
          ? `${plural(stills.proposals.length, "still", "stills")} worth having`
          : "Looking for good stills…"}
      </h2>
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(112px,1fr))] gap-x-3 gap-y-4">
        {stills.proposals?.map((one) => (
          <li key={one.seconds} className="relative">
            <button
              type="button"
              aria-label={`Go to ${clock(one.seconds)}`}
              aria-pressed={clip.at === one.seconds}
              title={REASONS(one.eyes)}
              onClick={() => clip.go(one.seconds)}
              className={`block w-full border-b-2 ${clip.at === one.seconds ? "border-measure" : "border-strong"}`}
            >
              <img
                src={frameUrl(workspace, artwork, one.seconds, 224)}
                alt=""
                loading="lazy"
                className="block h-16 w-full object-contain"
              />
            </button>
            <label className="mt-1 flex flex-wrap items-center gap-x-1.5">
              <input
                type="checkbox"
                aria-label={`Keep the still at ${clock(one.seconds)}`}
                checked={kept.includes(one.seconds)}
                onChange={() => keep(one.seconds)}
                className="size-4 accent-[var(--measure)]"
              />
              <span className="figure text-measure">{clock(one.seconds)}</span>
              {one.eyes && <span className="basis-full text-[11px] text-soft">eyes open</span>}
            </label>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface KeptProps extends Props {
  clip: Clip;
  kept: number[];
  setKept: (kept: number[]) => void;
}

/** The candidates side by side, and what became artwork already. */
function Kept({ workspace, artwork, stills, kept, setKept, clip }: KeptProps) {
  const queries = useQueryClient();
  const take = useMutation({
    mutationFn: () => takeStills(workspace, artwork, kept),
    onSuccess: () => {
      setKept([]);
      void queries.invalidateQueries({ queryKey: [workspace, "stills", artwork] });
      void queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
    },
  });
  return (
    <aside aria-labelledby="kept">
      <h2 id="kept" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Candidates
      </h2>
      {kept.length === 0 && (
        <p className="py-2 text-[13px] text-soft">
          Keep the frames that might do: press Enter, or tick proposals. Then make artwork of those you want.
        </p>
      )}
      <ul>
        {kept.map((at) => (
          <li key={at} className="flex items-center gap-3 border-b border-hairline py-2">
            <button type="button" aria-label={`Look at ${clock(at)}`} onClick={() => clip.go(at)}>
              <img
                src={frameUrl(workspace, artwork, at, 224)}
                alt=""
                className="h-16 max-w-34 object-contain"
              />
            </button>
            <span className="figure flex-1 text-measure">{clock(at)}</span>
            <button
              type="button"
              aria-label={`Put ${clock(at)} away`}
              onClick={() => setKept(kept.filter((one) => one !== at))}
              className="p-1 text-soft hover:text-ink"
            >
              <X aria-hidden size={14} />
            </button>
          </li>
        ))}
      </ul>
      {kept.length > 0 && (
        <Button look="next" className="mt-3" disabled={take.isPending} onClick={() => take.mutate()}>
          {`Make artwork of ${plural(kept.length, "still", "stills")}`}
        </Button>
      )}
      {take.error && <Problem message={take.error.message} />}
      {stills.taken.length + stills.loops.length > 0 && (
        <>
          <h3 className="mt-5 text-[13px]">Artwork already</h3>
          <ul>
            {stills.loops.map((one) => (
              <li key={one.id} className="border-b border-hairline py-1 text-[13px]">
                <Link
                  to={`/w/${workspace}/artwork?chosen=${one.id}`}
                  className="text-measure hover:underline"
                >
                  The loop from <span className="figure">{clock(one.begin)}</span> to{" "}
                  <span className="figure">{clock(one.end)}</span>
                </Link>
              </li>
            ))}
            {stills.taken.map((one) => (
              <li key={one.id} className="border-b border-hairline py-1 text-[13px]">
                <Link
                  to={`/w/${workspace}/artwork?chosen=${one.id}`}
                  className="text-measure hover:underline"
                >
                  The still at <span className="figure">{clock(one.seconds)}</span>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </aside>
  );
}
