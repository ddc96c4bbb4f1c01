import { useState } from "react";

import type { FitOut, Schemas } from "../../../api/client";
import type { Box } from "../../../measure/pan";
import type { Bench } from "../useBench";
import { documentPart, partHere } from "./parts";

type Gradient = Schemas["Gradient"];
const STEP = 15; // degrees, with Shift

/** The direction of a gradient as a line on the proof; its end turns it. */
export function GradientLine({ bench, fit, scale }: { bench: Bench; fit: FitOut; scale: number }) {
  const id = bench.selection.ids.length === 1 ? bench.selection.ids[0]! : "";
  const own = documentPart(fit, id);
  if (!own || (own.role !== "ground" && own.role !== "shape")) return null;
  const fill = partHere(fit, own as Schemas["GroundPart"]).fill as Gradient | null | undefined;
  if (fill?.kind !== "gradient" || fill.form === "radial") return null;
  const placed = fit.parts.find((part) => part.part === id);
  const box = placed?.stands ?? { x: 0, y: 0, width: fit.width, height: fit.height };
  return <Line key={fill.angle} bench={bench} part={id} fill={fill} box={box} scale={scale} />;
}

interface LineProps {
  bench: Bench;
  part: string;
  fill: Gradient;
  box: Box;
  scale: number;
}

function Line({ bench, part, fill, box, scale }: LineProps) {
  const [angle, setAngle] = useState(fill.angle ?? 0);
  const [held, setHeld] = useState(false);
  const middle = { x: (box.x + box.width / 2) * scale, y: (box.y + box.height / 2) * scale };
  const length = Math.min(box.width, box.height) * scale * 0.4;
  const save = (value: number) =>
    value !== fill.angle &&
    bench.change("turn the gradient", [{ part, field: "fill", value: { ...fill, angle: value } }]);
  return (
    <span
      className="pointer-events-none absolute h-0 origin-left border-t-2 border-measure"
      style={{ left: middle.x, top: middle.y, width: length, rotate: `${angle}deg` }}
    >
      <span
        role="slider"
        tabIndex={0}
        aria-label="Angle of the gradient"
        aria-valuenow={Math.round(angle)}
        className="pointer-events-auto absolute -top-3 -right-3 flex size-6 cursor-grab touch-none items-center justify-center"
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          setHeld(true);
        }}
        onPointerMove={(event) => {
          if (!held) return;
          const frame = event.currentTarget.closest("[data-stage]")!.getBoundingClientRect();
          const to = Math.atan2(event.clientY - frame.top - middle.y, event.clientX - frame.left - middle.x);
          const degrees = (to * 180) / Math.PI;
          setAngle(event.shiftKey ? Math.round(degrees / STEP) * STEP : Math.round(degrees));
        }}
        onPointerUp={() => {
          setHeld(false);
          save(angle);
        }}
        onKeyDown={(event) => {
          const step = { ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1, ArrowUp: -1 }[event.key];
          if (!step) return;
          event.preventDefault();
          event.stopPropagation();
          save(angle + step * (event.shiftKey ? STEP : 1));
        }}
      >
        <span className="size-3 rotate-45 border-2 border-measure bg-sheet" />
      </span>
    </span>
  );
}
