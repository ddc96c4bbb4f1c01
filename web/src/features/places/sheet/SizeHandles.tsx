import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { Frame } from "../SheetDrawing";
import { isExact } from "./SizeFields";
import type { Draft, Sheet } from "./useDraft";

type Side = "width" | "height";

/** A size whose edges can be dragged: what it is called, its sides in px, and the sheet's size with another one. */
interface Limit {
  words: string;
  width: number | null;
  height: number | null;
  put: (side: Side, px: number) => Sheet["size"];
}

const MOST_PX = 20_000;

function limitsOf(size: Sheet["size"]): Limit[] {
  if (isExact(size)) return [{ words: "", ...size, put: (side, px) => ({ ...size, [side]: px }) }];
  const best = size.recommended;
  const found: Limit[] = (
    [
      ["least", "min"],
      ["most", "max"],
    ] as const
  ).map(([words, which]) => ({
    words,
    width: size[`${which}_width`] ?? null,
    height: size[`${which}_height`] ?? null,
    put: (side, px) => ({ ...size, [`${which}_${side}`]: px }),
  }));
  if (best)
    found.push({
      words: "recommended",
      ...best,
      put: (side, px) => ({ ...size, recommended: { ...best, [side]: px } }),
    });
  return found;
}

interface Props {
  draft: Draft;
  frame: Frame;
  hold: (scale: number | null) => void;
}

/** The edges of the sizes that the sheet states. */
export function SizeHandles({ draft, frame, hold }: Props) {
  return limitsOf(draft.sheet.size).flatMap((limit) =>
    (["width", "height"] as const).map((side) => (
      <Edge
        key={limit.words + side}
        limit={limit}
        side={side}
        frame={frame}
        hold={hold}
        put={(px) => draft.set({ size: limit.put(side, px) })}
      />
    )),
  );
}

interface EdgeProps {
  limit: Limit;
  side: Side;
  frame: Frame;
  hold: (scale: number | null) => void;
  put: (px: number) => void;
}

function Edge({ limit, side, frame, hold, put }: EdgeProps) {
  const start = useRef<{ at: number; px: number } | null>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const stated = limit[side];
  if (stated === null) return null;
  const px = dragged ?? stated;
  const across = side === "width";
  const other = limit[across ? "height" : "width"];
  const middle = ((other ? other * frame.scale : across ? frame.height : frame.width) / 2) | 0;
  const where = px * frame.scale;
  const name = `${limit.words ? `${limit.words} ` : ""}${side}`;
  const label = name.charAt(0).toUpperCase() + name.slice(1);
  const follow = (event: PointerEvent) => {
    if (!start.current) return;
    const by = across ? event.clientX - start.current.at : start.current.at - event.clientY;
    setDragged(within(roundTo(start.current.px + by / frame.scale, event.altKey ? 1 : stepOf(frame.scale))));
  };
  const done = () => {
    if (!start.current) return;
    start.current = null;
    hold(null);
    setDragged(null);
    if (dragged !== null && dragged !== stated) put(dragged);
  };
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    put(within(stated + by * (event.shiftKey ? 10 : 1)));
  };
  return (
    <span
      role="slider"
      tabIndex={0}
      aria-label={`${label}; arrow keys change it`}
      aria-valuenow={px}
      aria-valuemin={1}
      aria-valuemax={MOST_PX}
      aria-valuetext={`${px} px`}
      aria-orientation={across ? "horizontal" : "vertical"}
      title={`${label}: drag it, or use the arrow keys`}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.focus();
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = { at: across ? event.clientX : event.clientY, px: stated };
        hold(frame.scale);
      }}
      onPointerMove={follow}
      onPointerUp={done}
      onPointerCancel={done}
      onKeyDown={onKey}
      className={`absolute z-10 flex touch-none items-center justify-center ${across ? "h-8 w-4 -translate-x-1/2 translate-y-1/2 cursor-ew-resize" : "h-4 w-8 -translate-x-1/2 translate-y-1/2 cursor-ns-resize"}`}
      style={across ? { left: where, bottom: middle } : { left: middle, bottom: where }}
    >
      <span className={`bg-measure ${across ? "h-5 w-[3px]" : "h-[3px] w-5"}`} />
      {dragged !== null && (
        <span className="figure absolute bottom-full left-1/2 bg-sheet px-1 whitespace-nowrap text-measure">
          {px} px
        </span>
      )}
    </span>
  );
}

const within = (px: number) => Math.min(MOST_PX, Math.max(1, Math.round(px)));
const roundTo = (px: number, step: number) => Math.round(px / step) * step;
/** Sizes are round figures: the coarser the drawing, the rounder. Alt drags to the px. */
const stepOf = (scale: number) => (scale > 0.6 ? 1 : scale > 0.3 ? 5 : 10);
