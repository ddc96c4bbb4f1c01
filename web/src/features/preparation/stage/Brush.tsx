import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { PreparationOut, Schemas, StepOf, Stroke } from "../../../api/client";
import { stepUrl } from "../../../api/queries";
import { useLimits } from "../../../ui/useLimits";
import { SteadyImage } from "../../../ui/SteadyImage";
import type { Tools } from "../useTools";
import type { Preparing } from "../usePreparation";
import { groundStyle } from "./Grounds";
import { after } from "./sizes";

interface Props {
  preparing: Preparing;
  data: PreparationOut;
  step: StepOf<"cut out">;
  tools: Tools;
  size: Schemas["SizeOut"];
  scale: number;
}

type Spot = [number, number];

const COLOURS: Record<string, string> = {
  keep: "var(--fits)",
  restore: "var(--fits)",
  drop: "var(--refused)",
  erase: "var(--refused)",
};
const CLOSE_PX = 2; // on the screen; nearer points tell nothing new
const STEPS: Record<string, Spot> = {
  ArrowLeft: [-0.01, 0],
  ArrowRight: [0.01, 0],
  ArrowUp: [0, -0.01],
  ArrowDown: [0, 0.01],
};

/** Strokes over the cut, which is seen above a faint picture of what was there. By keyboard: arrows, Space, [ and ]. */
export function Brush({ preparing, data, step, tools, size, scale }: Props) {
  const [line, setLine] = useState<{ key: string; points: Spot[] }>({ key: "", points: [] });
  const [at, setAt] = useState<Spot | null>(null);
  const drawing = useRef(false);
  const { stroke_points } = useLimits();
  const act = tools.cut as Stroke["act"];
  const [across, down] = [size.width * scale, size.height * scale];
  const thick = Math.max(3, tools.brushSize * Math.min(across, down));
  const cut = after(data, step.id);
  const drawn = line.key === cut.key ? line.points : []; // until the picture with the stroke is there
  const setPoints = (change: (points: Spot[]) => Spot[]) =>
    setLine((one) => ({ key: cut.key, points: change(one.key === cut.key ? one.points : []) }));

  const place = (event: PointerEvent): Spot => {
    const frame = event.currentTarget.getBoundingClientRect();
    return [(event.clientX - frame.left) / frame.width, (event.clientY - frame.top) / frame.height];
  };
  const save = (points: Spot[]) =>
    preparing.change(`${act} by a stroke`, {
      ...step,
      strokes: [
        ...step.strokes,
        {
          act,
          points: points.map(([x, y]): Spot => [rounded(x), rounded(y)]),
          size: tools.brushSize,
          softness: tools.brushSoftness,
        },
      ],
    });
  const onKey = (event: KeyboardEvent) => {
    const by = STEPS[event.key];
    const now = at ?? [0.5, 0.5];
    if (by) setAt([now[0] + by[0] * (event.shiftKey ? 5 : 1), now[1] + by[1] * (event.shiftKey ? 5 : 1)]);
    else if (event.key === " " || event.key === "Enter") save([now]);
    else if (event.key === "[") tools.setBrushSize(Math.max(0.01, tools.brushSize - 0.01));
    else if (event.key === "]") tools.setBrushSize(Math.min(0.4, tools.brushSize + 0.01));
    else return;
    event.preventDefault();
  };
  return (
    <>
      <div
        className={`absolute inset-0 ${tools.ground === "checker" ? "checker" : ""}`}
        style={{ ...groundStyle(tools.ground), opacity: 0.75 }}
      />
      <SteadyImage
        src={stepUrl(
          preparing.workspace,
          preparing.artwork,
          cut.upto,
          Math.min(across * devicePixelRatio, 1280),
          cut.key,
        )}
        alt=""
        className="absolute inset-0 h-full w-full"
      />
      <svg
        role="application"
        tabIndex={0}
        aria-label={`Brush: ${act}. Arrow keys move it, Space paints, square brackets change its size.`}
        viewBox={`0 0 ${across} ${down}`}
        className="absolute inset-0 h-full w-full cursor-none touch-none"
        onKeyDown={onKey}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = true;
          const spot = place(event);
          setPoints(() => [spot]);
        }}
        onPointerMove={(event) => {
          const spot = place(event);
          setAt(spot);
          if (!drawing.current) return;
          setPoints((points) => {
            const last = points.at(-1) ?? spot;
            const far = Math.hypot((spot[0] - last[0]) * across, (spot[1] - last[1]) * down) >= CLOSE_PX;
            return far && points.length < stroke_points ? [...points, spot] : points;
          });
        }}
        onPointerUp={() => {
          if (drawing.current && drawn.length > 0) save(drawn);
          drawing.current = false;
        }}
        onPointerLeave={() => !drawing.current && setAt(null)}
      >
        {drawn.length > 0 && (
          <polyline
            points={[...drawn, drawn.at(-1)!].map(([x, y]) => `${x * across},${y * down}`).join(" ")}
            fill="none"
            stroke={COLOURS[act]}
            strokeOpacity={0.5}
            strokeWidth={thick}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        )}
        {at && (
          <circle
            cx={at[0] * across}
            cy={at[1] * down}
            r={thick / 2}
            fill="none"
            stroke={COLOURS[act]}
            strokeWidth={1.5}
          />
        )}
      </svg>
    </>
  );
}

const rounded = (value: number) => Math.round(Math.min(Math.max(value, -1), 2) * 1e4) / 1e4;
