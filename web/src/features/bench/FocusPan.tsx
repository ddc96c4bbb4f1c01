import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { FitOut, PartOut } from "../../api/client";
import { artworkUrl } from "../../api/queries";
import { focusOf, movedWindow, spread, type Box } from "../../measure/pan";
import type { Bench } from "./useBench";

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const SETTLE_MS = 350; // after the last arrow key the focus is saved
const FAR = 10; // px of the file with Shift

interface Props {
  bench: Bench;
  fit: FitOut;
  scale: number;
  workspace: string;
}

/** Moves the picture that fills the proof: its own picture is moved at once, the server answers on release. */
export function FocusPan(props: Props) {
  const part = [...props.fit.parts].reverse().find((entry) => entry.mode === "fill");
  return part ? <Pan key={part.part} {...props} part={part} /> : null;
}

function Pan({ bench, fit, scale, workspace, part }: Props & { part: PartOut }) {
  const [window, setWindow] = useState<Box | null>(null);
  const from = useRef<{ x: number; y: number; window: Box } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const natural = part.natural;
  const perScreenPx = part.window.width / (part.box.width * scale);

  // The new plan is here: the server's proof takes over from the moved picture.
  useEffect(() => {
    const soon = setTimeout(() => setWindow(null), 150);
    return () => clearTimeout(soon);
  }, [fit.key]);

  const settle = (moved: Box) => {
    const same = moved.x === part.window.x && moved.y === part.window.y;
    if (same) setWindow(null);
    else
      bench.change("move the focus", [{ part: part.part, field: "focus", value: focusOf(moved, natural) }]);
  };
  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, y: event.clientY, window: window ?? part.window };
  };
  const onMove = (event: PointerEvent<HTMLDivElement>) => {
    const start = from.current;
    if (!start) return;
    const dx = (start.x - event.clientX) * perScreenPx;
    const dy = (start.y - event.clientY) * perScreenPx;
    setWindow(movedWindow(start.window, dx, dy, natural));
  };
  const onUp = () => {
    from.current = null;
    if (window) settle(window);
  };
  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    const arrow = ARROWS[event.key];
    if (!arrow) return;
    event.preventDefault();
    const step = (event.shiftKey ? FAR : 1) * perScreenPx * scale;
    const moved = movedWindow(window ?? part.window, arrow[0] * step, arrow[1] * step, natural);
    setWindow(moved);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => settle(moved), SETTLE_MS);
  };

  const box = scaled(part.box, scale);
  const lies = window && spread(box, window, natural);
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Focus of the picture: drag, or move it with the arrow keys"
      aria-valuetext={focusWords(window ?? part.window, natural)}
      aria-valuenow={Math.round(focusOf(window ?? part.window, natural).x * 100)}
      className="absolute cursor-grab touch-none overflow-hidden outline-offset-[-3px] active:cursor-grabbing"
      style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={onKey}
    >
      {lies && (
        <img
          src={artworkUrl(workspace, part.artwork, 1600)}
          alt=""
          draggable={false}
          className="absolute max-w-none"
          style={{ left: lies.x - box.x, top: lies.y - box.y, width: lies.width, height: lies.height }}
        />
      )}
    </div>
  );
}

const scaled = (box: Box, by: number): Box => ({
  x: box.x * by,
  y: box.y * by,
  width: box.width * by,
  height: box.height * by,
});

function focusWords(window: Box, natural: { width: number; height: number }): string {
  const { x, y } = focusOf(window, natural);
  return `${Math.round(x * 100)} % across, ${Math.round(y * 100)} % down`;
}
