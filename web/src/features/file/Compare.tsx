import { useLayoutEffect, useRef, useState, type PointerEvent } from "react";

import { SteadyImage } from "../../ui/SteadyImage";

export type Zoom = "whole" | "1" | "2" | "4";

interface Props {
  original: string;
  file: string;
  /** A veil where most was lost; none where it is not asked for. */
  errors?: string;
  width: number;
  height: number;
  /** What lies behind a picture with clear places. */
  ground: string;
  zoom: Zoom;
  /** What stands in the middle when it is enlarged, in fractions of the picture. */
  middle: { x: number; y: number };
}

const TALLEST_PX = 460;

/** The original on the left of a line, the file on its right; the line is dragged, or moved by the arrow keys. */
export function Compare({ original, file, errors, width, height, ground, zoom, middle }: Props) {
  const [line, setLine] = useState(50);
  const frame = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(0);
  useLayoutEffect(() => {
    const measure = () => setRoom(frame.current?.clientWidth ?? 0);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, []);
  const whole = Math.min(1, room / width, TALLEST_PX / height);
  const scale = zoom === "whole" ? whole : Number(zoom) / devicePixelRatio;
  const shown = { width: Math.min(room, width * scale), height: Math.min(TALLEST_PX, height * scale) };
  const left = offset(middle.x, width * scale, shown.width);
  const top = offset(middle.y, height * scale, shown.height);
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (event.type === "pointermove" && event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    setLine(Math.round(Math.min(100, Math.max(0, ((event.clientX - box.left) / box.width) * 100))));
  };
  const place = {
    width: width * scale,
    height: height * scale,
    left,
    top,
    imageRendering: scale > 1 ? ("pixelated" as const) : ("auto" as const),
  };
  return (
    <div ref={frame} className="min-w-0">
      <div
        className="relative cursor-ew-resize touch-none overflow-hidden select-none"
        style={{ ...shown, background: ground }}
        onPointerDown={move}
        onPointerMove={move}
      >
        <SteadyImage src={original} alt="As it was drawn" className="absolute max-w-none" style={place} />
        <div className="absolute inset-0" style={{ clipPath: `inset(0 0 0 ${line}%)` }}>
          <div className="absolute inset-0" style={{ background: ground }} />
          <SteadyImage src={file} alt="As it is in the file" className="absolute max-w-none" style={place} />
          {errors && (
            <SteadyImage
              src={errors}
              alt=""
              className="absolute max-w-none"
              style={{ ...place, imageRendering: "auto" }}
            />
          )}
        </div>
        <span aria-hidden className="absolute inset-y-0 w-px bg-measure" style={{ left: `${line}%` }} />
      </div>
      <div className="figure mt-1 flex items-center gap-3 text-soft" style={{ width: shown.width }}>
        <span>drawn</span>
        <input
          type="range"
          min={0}
          max={100}
          value={line}
          aria-label="The line between the original and the file"
          onChange={(event) => setLine(Number(event.target.value))}
          className="h-6 min-w-0 grow accent-measure"
        />
        <span>file</span>
      </div>
    </div>
  );
}

/** How far a picture is shifted so that a place of it stands in the middle of its window, without a gap. */
function offset(share: number, size: number, room: number): number {
  return Math.min(0, Math.max(room - size, room / 2 - share * size));
}
