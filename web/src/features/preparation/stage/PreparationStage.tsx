import { useEffect, useRef, useState } from "react";

import type { PreparationOut, Step } from "../../../api/client";
import { stepUrl } from "../../../api/queries";
import { Dimension } from "../../../ui/Dimension";
import { isTyping } from "../../../ui/isTyping";
import { Ruler } from "../../../ui/Ruler";
import { SteadyImage } from "../../../ui/SteadyImage";
import type { Tools, View } from "../useTools";
import type { Preparing } from "../usePreparation";
import { Brush } from "./Brush";
import { BoxFrame, CropFrame, OfferedBox } from "./Frames";
import { Eyes } from "./Eyes";
import { Grounds, groundStyle } from "./Grounds";
import { LevelLine } from "./LevelLine";
import { after, before, type Shown } from "./sizes";

interface Props {
  preparing: Preparing;
  data: PreparationOut;
  tools: Tools;
  name: string;
}

const ROOM_BELOW_PX = 250; // of the screen, for what is above and below the picture
const LEAST_TALL_PX = 240;
const RULER_PX = 14;

/** The picture, drawn to scale and measured: worked on, after, before, or both side by side. */
export function PreparationStage({ preparing, data, tools, name }: Props) {
  const [ref, room] = useRoom();
  const { chosen } = preparing;
  const view = tools.view === "work" && !worksOnPicture(chosen, tools) ? "after" : tools.view;
  useCompareKey(tools);
  const now = after(data, chosen?.id);
  const then = chosen
    ? before(data, chosen.id)
    : { ...before(data, ""), upto: 0, key: data.key, size: data.before };
  const both = view === "both";
  const shown = both ? [then, now] : [view === "after" ? now : then];
  const wide = both ? (room.width - 24) / 2 : room.width - RULER_PX;
  return (
    <section aria-label="The picture" ref={ref} className="min-w-0">
      <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-1 text-[13px]">
        <Views tools={tools} view={view} working={worksOnPicture(chosen, tools)} />
        <Grounds workspace={preparing.workspace} tools={tools} />
      </div>
      {room.width > 0 && (
        <div className="flex flex-wrap gap-6">
          {shown.map((one, index) => (
            <Picture
              key={`${index}${both}`}
              preparing={preparing}
              shown={one}
              tools={tools}
              room={[wide, room.height]}
              name={name}
              ruled={!both}
              words={both ? (index ? "after" : "before") : one.words}
            >
              {(scale) =>
                view === "work" && chosen ? (
                  <Work preparing={preparing} data={data} tools={tools} step={chosen} scale={scale} />
                ) : one === now ? (
                  <OfferedBox box={offered(data, chosen)} />
                ) : null
              }
            </Picture>
          ))}
        </div>
      )}
    </section>
  );
}

/** The box that is offered for a step, where one is. */
const offered = (data: PreparationOut, step: Step | undefined) =>
  data.steps.find((one) => one.id === step?.id)?.offer?.box;

/** Whether a step is worked on with the pointer, on the picture that it meets. */
function worksOnPicture(step: Step | undefined, tools: Tools): boolean {
  if (!step?.on) return false;
  return (
    step.kind === "crop" ||
    step.kind === "straighten" ||
    step.kind === "red eyes" ||
    (step.kind === "cut out" && tools.cut !== "look")
  );
}

const VIEWS: [View, string][] = [
  ["work", "Work on it"],
  ["after", "After"],
  ["before", "Before"],
  ["both", "Side by side"],
];

function Views({ tools, view, working }: { tools: Tools; view: View; working: boolean }) {
  return (
    <div role="group" aria-label="Show" className="flex gap-4">
      {VIEWS.filter(([key]) => key !== "work" || working).map(([key, words]) => (
        <button
          key={key}
          type="button"
          aria-pressed={key === view}
          onClick={() => tools.setView(key === "after" && !working ? "work" : key)}
          className={`min-h-7 border-b-2 ${key === view ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

/** B shows the picture before the step as long as it is held down. */
function useCompareKey({ setView }: Tools): void {
  useEffect(() => {
    let held: View | null = null;
    const press = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== "b" || isTyping(event.target) || event.ctrlKey || event.metaKey) return;
      setView((now) => {
        held ??= now;
        return "before";
      });
    };
    const release = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== "b" || held === null) return;
      setView(held);
      held = null;
    };
    document.addEventListener("keydown", press);
    document.addEventListener("keyup", release);
    return () => {
      document.removeEventListener("keydown", press);
      document.removeEventListener("keyup", release);
    };
  }, [setView]);
}

interface PictureProps {
  preparing: Preparing;
  shown: Shown;
  tools: Tools;
  room: [number, number];
  name: string;
  words: string;
  ruled: boolean;
  children: (scale: number) => React.ReactNode;
}

function Picture({ preparing, shown, tools, room, name, words, ruled, children }: PictureProps) {
  const { width, height } = shown.size;
  const scale = Math.min(room[0] / width, room[1] / height, 4);
  const [w, h] = [width * scale, height * scale];
  const url = stepUrl(
    preparing.workspace,
    preparing.artwork,
    shown.upto,
    Math.min(w * devicePixelRatio, 1280),
    shown.key,
  );
  return (
    <figure>
      <div className="flex">
        {ruled && <span className="shrink-0" style={{ width: RULER_PX }} />}
        {ruled && <Ruler length={width} scale={scale} side="top" />}
      </div>
      <div className="flex">
        {ruled && <Ruler length={height} scale={scale} side="left" />}
        <div
          data-stage
          className={`relative overflow-hidden ${tools.ground === "checker" ? "checker" : ""}`}
          style={{ width: w, height: h, ...groundStyle(tools.ground) }}
        >
          <SteadyImage src={url} alt={`${name}, ${words}`} className="block h-full w-full select-none" />
          {children(scale)}
        </div>
      </div>
      <figcaption className="mt-1.5" style={{ marginLeft: ruled ? RULER_PX : 0 }}>
        <Dimension width={w} figure={`${words}: ${Math.round(width)} × ${Math.round(height)} px`} />
      </figcaption>
    </figure>
  );
}

interface WorkProps {
  preparing: Preparing;
  data: PreparationOut;
  tools: Tools;
  step: Step;
  scale: number;
}

/** What is drawn over the picture to work on a step. */
function Work({ preparing, data, tools, step, scale }: WorkProps) {
  const { size } = before(data, step.id);
  switch (step.kind) {
    case "crop":
      return (
        <CropFrame key={step.id} preparing={preparing} step={step} tools={tools} size={size} scale={scale} />
      );
    case "straighten":
      return <LevelLine preparing={preparing} step={step} size={size} scale={scale} />;
    case "red eyes":
      return <Eyes preparing={preparing} step={step} size={size} scale={scale} />;
    case "cut out":
      return tools.cut === "box" ? (
        <BoxFrame preparing={preparing} step={step} size={size} scale={scale} />
      ) : (
        <>
          <OfferedBox box={offered(data, step)} />
          <Brush preparing={preparing} data={data} step={step} tools={tools} size={size} scale={scale} />
        </>
      );
    default:
      return null;
  }
}

function useRoom() {
  const ref = useRef<HTMLElement>(null);
  const [room, setRoom] = useState({ width: 0, height: LEAST_TALL_PX });
  useEffect(() => {
    const measure = () =>
      setRoom({
        width: ref.current?.clientWidth ?? 0,
        height: Math.max(LEAST_TALL_PX, window.innerHeight - ROOM_BELOW_PX),
      });
    measure();
    window.addEventListener("resize", measure);
    return () => window.removeEventListener("resize", measure);
  }, []);
  return [ref, room] as const;
}
