import { useRef, useState, type PointerEvent } from "react";

import type { Schemas, StepOf } from "../../../api/client";
import { levelling } from "../../../measure/cropping";
import type { Preparing } from "../usePreparation";

interface Props {
  preparing: Preparing;
  step: StepOf<"straighten">;
  size: Schemas["SizeOut"];
  scale: number;
}

interface Point {
  x: number;
  y: number;
}

const SHORTEST_PX = 20;

/** A line drawn along what should be level or upright. */
export function LevelLine({ preparing, step, size, scale }: Props) {
  const [line, setLine] = useState<[Point, Point] | null>(null);
  const start = useRef<Point | null>(null);
  const place = (event: PointerEvent): Point => {
    const frame = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - frame.left, y: event.clientY - frame.top };
  };
  const end = () => {
    start.current = null;
    if (line && Math.hypot(line[1].x - line[0].x, line[1].y - line[0].y) >= SHORTEST_PX)
      preparing.change("straighten by a line", { ...step, degrees: levelling(...line) });
    setLine(null);
  };
  return (
    <svg
      width={size.width * scale}
      height={size.height * scale}
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = place(event);
      }}
      onPointerMove={(event) => start.current && setLine([start.current, place(event)])}
      onPointerUp={end}
    >
      {line && (
        <>
          <line
            x1={line[0].x}
            y1={line[0].y}
            x2={line[1].x}
            y2={line[1].y}
            stroke="var(--measure)"
            strokeWidth={2}
          />
          <text
            x={line[1].x + 8}
            y={line[1].y - 8}
            className="figure [paint-order:stroke]"
            fill="var(--measure)"
            stroke="var(--sheet)"
            strokeWidth={4}
          >
            {levelling(...line)}°
          </text>
        </>
      )}
    </svg>
  );
}
