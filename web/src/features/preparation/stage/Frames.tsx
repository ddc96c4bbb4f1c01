import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { Schemas, StepOf } from "../../../api/client";
import { HANDLES, type Handle } from "../../../measure/boxes";
import { windowMoved, windowResized } from "../../../measure/cropping";
import type { Box } from "../../../measure/pan";
import type { Tools } from "../useTools";
import type { Preparing } from "../usePreparation";

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const SETTLE_MS = 400; // after the last arrow key the window is saved
const LEAST_DRAWN = 0.02;

interface FrameProps {
  label: string;
  window: Box;
  size: Schemas["SizeOut"];
  scale: number;
  ratio: number | null;
  thirds: boolean;
  save: (window: Box) => void;
}

/** A window that is moved by its middle and resized by its handles, or by the arrow keys; the rest is shaded. */
function Frame({ label, window, size, scale, ratio, thirds, save }: FrameProps) {
  const [moving, setMoving] = useState<{ base: Box; box: Box } | null>(null);
  const start = useRef<{ x: number; y: number; from: Box; handle: Handle | null } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const shown = moving?.base === window ? moving.box : window; // until the saved window is there
  const show = (box: Box) => setMoving({ base: window, box });
  const [across, down] = [size.width * scale, size.height * scale];
  const begin = (event: PointerEvent, handle: Handle | null) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, y: event.clientY, from: shown, handle };
  };
  const move = (event: PointerEvent) => {
    if (!start.current) return;
    const by = { x: (event.clientX - start.current.x) / across, y: (event.clientY - start.current.y) / down };
    const { from, handle } = start.current;
    show(handle ? windowResized(from, handle, by, ratio, size) : windowMoved(from, by.x, by.y));
  };
  const end = () => {
    if (start.current && moving?.base === window) save(moving.box);
    start.current = null;
  };
  const onKey = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    if (!arrow) return;
    event.preventDefault();
    const step = event.shiftKey ? 10 : 1;
    const by = { x: (arrow[0] * step) / size.width, y: (arrow[1] * step) / size.height };
    const next =
      event.ctrlKey || event.metaKey
        ? windowResized(shown, { x: 1, y: 1 }, by, ratio, size)
        : windowMoved(shown, by.x, by.y);
    show(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => save(next), SETTLE_MS);
  };
  const style = {
    left: shown.x * across,
    top: shown.y * down,
    width: shown.width * across,
    height: shown.height * down,
  };
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label={`${label}: ${words(shown, size)}. Arrow keys move it, with Ctrl they resize it.`}
      onPointerDown={(event) => begin(event, null)}
      onPointerMove={move}
      onPointerUp={end}
      onKeyDown={onKey}
      className="absolute cursor-move touch-none border border-measure shadow-[0_0_0_9999px_var(--shade)]"
      style={style}
    >
      {thirds && <Thirds />}
      <span className="figure pointer-events-none absolute top-3.5 left-1/2 -translate-x-1/2 bg-measure px-1 whitespace-nowrap text-sheet">
        {words(shown, size)}
      </span>
      {HANDLES.map((handle) => (
        <span
          key={`${handle.x} ${handle.y}`}
          onPointerDown={(event) => begin(event, handle)}
          onPointerMove={move}
          onPointerUp={end}
          className="absolute flex size-6 -translate-1/2 items-center justify-center"
          style={{ left: `${50 + handle.x * 50}%`, top: `${50 + handle.y * 50}%`, cursor: cursorOf(handle) }}
        >
          <span className="size-2.5 border border-measure bg-sheet" />
        </span>
      ))}
    </div>
  );
}

const words = (window: Box, size: Schemas["SizeOut"]) =>
  `${Math.round(window.width * size.width)} × ${Math.round(window.height * size.height)} px at ${Math.round(window.x * size.width)}, ${Math.round(window.y * size.height)}`;

const cursorOf = (handle: Handle) =>
  !handle.x ? "ns-resize" : !handle.y ? "ew-resize" : handle.x === handle.y ? "nwse-resize" : "nesw-resize";

function Thirds() {
  return (
    <span aria-hidden className="pointer-events-none absolute inset-0">
      <span className="absolute inset-y-0 left-1/3 w-1/3 border-x border-measure opacity-50" />
      <span className="absolute inset-x-0 top-1/3 h-1/3 border-y border-measure opacity-50" />
    </span>
  );
}

interface Props<Kind extends "crop" | "cut out"> {
  preparing: Preparing;
  step: StepOf<Kind>;
  size: Schemas["SizeOut"];
  scale: number;
}

/** The window of a crop. */
export function CropFrame({ preparing, step, tools, size, scale }: Props<"crop"> & { tools: Tools }) {
  return (
    <Frame
      label="Crop"
      window={step.window}
      size={size}
      scale={scale}
      ratio={
        step.ratio
          ? (tools.ratio ?? (step.window.width * size.width) / (step.window.height * size.height))
          : null
      }
      thirds
      save={(window) => preparing.change("crop", { ...step, window: inside(window) })}
    />
  );
}

/** The box around a subject: drawn anew anywhere, then moved and resized like a crop. */
export function BoxFrame({ preparing, step, size, scale }: Props<"cut out">) {
  const [drawn, setDrawn] = useState<Box | null>(null);
  const start = useRef<{ x: number; y: number } | null>(null);
  const place = (event: PointerEvent) => {
    const frame = event.currentTarget.getBoundingClientRect();
    const at = (value: number) => Math.min(Math.max(value, 0), 1);
    return {
      x: at((event.clientX - frame.left) / frame.width),
      y: at((event.clientY - frame.top) / frame.height),
    };
  };
  const save = (window: Box) =>
    preparing.change("box around the subject", {
      ...step,
      box: inside(window),
      method: step.method === "auto" ? "object" : step.method,
    });
  const shown = drawn ?? step.box;
  return (
    <>
      <div
        className="absolute inset-0 cursor-crosshair touch-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          start.current = place(event);
        }}
        onPointerMove={(event) => {
          if (!start.current) return;
          const to = place(event);
          setDrawn({
            x: Math.min(start.current.x, to.x),
            y: Math.min(start.current.y, to.y),
            width: Math.abs(to.x - start.current.x),
            height: Math.abs(to.y - start.current.y),
          });
        }}
        onPointerUp={() => {
          start.current = null;
          if (drawn && Math.min(drawn.width, drawn.height) > LEAST_DRAWN) save(drawn);
          setDrawn(null);
        }}
      />
      {shown && (
        <Frame label="Box" window={shown} size={size} scale={scale} ratio={null} thirds={false} save={save} />
      )}
      {!shown && (
        <button
          type="button"
          onClick={() => save({ x: 0.2, y: 0.1, width: 0.6, height: 0.8 })}
          className="absolute bottom-3 left-3 bg-sheet px-2 py-1 text-[12px] font-semibold text-measure"
        >
          Draw a box, or start from this middle one
        </button>
      )}
    </>
  );
}

/** Rounding must not push a window out of the picture. */
function inside(window: Box): Box {
  const round = (value: number) => Math.round(value * 1e5) / 1e5;
  const x = round(window.x);
  const y = round(window.y);
  return { x, y, width: Math.min(round(window.width), 1 - x), height: Math.min(round(window.height), 1 - y) };
}

/** A box that is offered, where it would be. */
export function OfferedBox({ box }: { box: Box | undefined }) {
  if (!box) return null;
  const style = {
    left: `${100 * box.x}%`,
    top: `${100 * box.y}%`,
    width: `${100 * box.width}%`,
    height: `${100 * box.height}%`,
  };
  return (
    <div
      aria-hidden
      data-offered
      className="pointer-events-none absolute border-2 border-dashed border-measure outline outline-sheet"
      style={style}
    />
  );
}
