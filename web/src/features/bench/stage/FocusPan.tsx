import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { FitOut, PartOut, Schemas } from "../../../api/client";
import { artworkUrl } from "../../../api/queries";
import { rounded, scaledBox } from "../../../measure/boxes";
import { focusOf, movedWindow, spread, type Box } from "../../../measure/pan";
import { useRange } from "../../../ui/useLimits";
import type { Bench } from "../useBench";
import { documentPart, partHere } from "./parts";

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
  part: PartOut;
}

const ZOOM_STEP = 1.1;

/** Moves a picture inside its box or its die: at once on the screen, the server answers on release. */
export function FocusPan({ bench, fit, scale, part }: Props) {
  const placed = part.artwork!;
  const { selection } = bench;
  const [window, setWindow] = useState<Box | null>(null);
  const from = useRef<{ x: number; y: number; window: Box } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const { natural, window: shown } = placed;
  const zooms = useRange("artwork", "zoom");
  const perScreenPx = shown.width / (part.box.width * scale);

  // The new plan is here: the server's proof takes over from the moved picture.
  useEffect(() => {
    const soon = setTimeout(() => setWindow(null), 150);
    return () => clearTimeout(soon);
  }, [fit.key]);

  const settle = (moved: Box) => {
    const same = moved.x === shown.x && moved.y === shown.y;
    if (same) setWindow(null);
    else
      bench.change("move the focus", [
        { part: part.part, field: "focal_point", value: focusOf(moved, natural) },
      ]);
  };
  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    event.stopPropagation();
    if (!selection.has(part.part)) selection.select([part.part]);
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, y: event.clientY, window: window ?? shown };
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
    const zoom = { "+": ZOOM_STEP, "-": 1 / ZOOM_STEP }[event.key];
    if (zoom) zoomBy(zoom);
    const arrow = ARROWS[event.key];
    if (!arrow) return;
    event.preventDefault();
    const step = (event.shiftKey ? FAR : 1) * perScreenPx * scale;
    event.stopPropagation();
    const moved = movedWindow(window ?? shown, arrow[0] * step, arrow[1] * step, natural);
    setWindow(moved);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => settle(moved), SETTLE_MS);
  };

  const own = partHere(fit, documentPart(fit, part.part) as Schemas["ArtworkPart"]);
  const zoomBy = (factor: number) => {
    const zoom = Math.min(
      zooms.most ?? Infinity,
      Math.max(zooms.least ?? 0, rounded((own.zoom ?? 1) * factor, 3)),
    );
    if (zoom !== own.zoom)
      bench.change("zoom the picture", [{ part: part.part, field: "zoom", value: zoom }]);
  };
  const box = scaledBox(part.box, scale);
  const lies = window && spread(box, window, natural);
  return (
    <div
      role="slider"
      tabIndex={0}
      data-part={part.part}
      aria-label="Focus of the picture: drag, or move it with the arrow keys"
      aria-valuetext={focusWords(window ?? shown, natural)}
      aria-valuenow={Math.round(focusOf(window ?? shown, natural).x * 100)}
      className="absolute cursor-grab touch-none overflow-hidden outline-offset-[-3px] active:cursor-grabbing"
      style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={onKey}
      onWheel={(event) => selection.has(part.part) && zoomBy(event.deltaY < 0 ? ZOOM_STEP : 1 / ZOOM_STEP)}
    >
      {lies && (
        <img
          src={artworkUrl(bench.workspace, { id: placed.artwork, key: placed.key }, 1600)}
          alt=""
          draggable={false}
          className="absolute max-w-none"
          style={{ left: lies.x - box.x, top: lies.y - box.y, width: lies.width, height: lies.height }}
        />
      )}
    </div>
  );
}

function focusWords(window: Box, natural: { width: number; height: number }): string {
  const { x, y } = focusOf(window, natural);
  return `${Math.round(x * 100)} % across, ${Math.round(y * 100)} % down`;
}
