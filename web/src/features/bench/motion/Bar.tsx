import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import { snapped, type Step } from "./steps";

const EDGE_PX = 10;
const KEY_S = 0.1;
const LEAST_PX = 24;

interface Props {
  label: string;
  step: Step;
  period: number;
  /** The moments at which other steps begin and end. */
  others: number[];
  /** Begins the step so many seconds later. */
  shift: (by: number) => void;
  /** Makes it so many seconds longer. */
  stretch: (by: number) => void;
}

interface Drag {
  from: number;
  by: number;
  edge: boolean;
}

/** A coming in or going out on the ruler: dragged, stretched at its right end, or moved by arrow keys. */
export function Bar({ label, step, period, others, shift, stretch }: Props) {
  const bar = useRef<HTMLButtonElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const start = step.start + (drag && !drag.edge ? drag.by : 0);
  const length = Math.max(0.1, step.length + (drag?.edge ? drag.by : 0));

  const secondsAt = (event: PointerEvent) => {
    const line = bar.current!.parentElement!.getBoundingClientRect();
    return (period * (event.clientX - line.left)) / line.width;
  };
  const begin = (event: PointerEvent<HTMLButtonElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ from: secondsAt(event), by: 0, edge: box.right - event.clientX < EDGE_PX });
  };
  const go = (event: PointerEvent) => {
    if (!drag) return;
    const from = drag.edge ? step.start + step.length : step.start;
    setDrag({ ...drag, by: snapped(from + secondsAt(event) - drag.from, others) - from });
  };
  const end = () => {
    if (drag && Math.abs(drag.by) > 0.005) (drag.edge ? stretch : shift)(drag.by);
    setDrag(null);
  };
  const key = (event: KeyboardEvent) => {
    const way = { ArrowLeft: -KEY_S, ArrowRight: KEY_S }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    (event.shiftKey ? stretch : shift)(way);
  };
  return (
    <button
      ref={bar}
      type="button"
      aria-label={`${label}, from ${step.start.toFixed(1)} s for ${step.length.toFixed(1)} s`}
      aria-description="Arrow keys move it by a tenth of a second, with Shift they make it longer or shorter"
      onPointerDown={begin}
      onPointerMove={go}
      onPointerUp={end}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={key}
      className="absolute top-[18px] h-6 min-w-6 cursor-ew-resize touch-none overflow-hidden rounded-[2px] border border-measure bg-sheet px-1 text-left text-[11px] whitespace-nowrap text-ink"
      style={{
        left: `min(${(100 * Math.max(0, start)) / period}%, calc(100% - ${LEAST_PX}px))`,
        width: `${(100 * length) / period}%`,
      }}
    >
      {drag && <span className="figure">{(drag.edge ? length : start).toFixed(1)} s</span>}
    </button>
  );
}
