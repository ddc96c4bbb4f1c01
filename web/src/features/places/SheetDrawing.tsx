import { useId, type ReactNode } from "react";

import type { Schemas } from "../../api/client";
import { Dimension } from "../../ui/Dimension";

type Sheet = Schemas["SheetOut"];

export interface Frame {
  /** Drawn px for each px of the picture. */
  scale: number;
  width: number;
  height: number;
}

interface Props {
  sheet: Sheet;
  room: number;
  tall: number;
  /** A scale that stays while something is dragged. */
  held?: number | null;
  /** What lies over the drawing; the picture stands in its lower left corner. */
  children?: (frame: Frame) => ReactNode;
}

/** A place drawn to scale, with dimension lines: its size, least and most, cut, windows, veil and covered zones. */
export function SheetDrawing({ sheet, room, tall, held, children }: Props) {
  const { size, least, most } = sheet;
  const widest = Math.max(size.width, most?.width ?? 0);
  const highest = Math.max(size.height, most?.height ?? 0);
  const scale = held ?? Math.min(room / widest, tall / highest, 1);
  const [width, height] = [widest * scale, highest * scale];
  const pick = { width: size.width * scale, height: size.height * scale };
  return (
    <figure aria-label={`${size.width} by ${size.height} px, drawn at ${ratioWords(scale)}`} className="m-0">
      <div className="flex items-end gap-3">
        <div className="relative border-b-2 border-strong" style={{ width, height }}>
          {most && <Outline box={scaled(most, scale)} dash="1 3" label="most" />}
          <Picture sheet={sheet} {...pick} />
          {least && <Outline box={scaled(least, scale)} dash="5 3" label="least" />}
          {children?.({ scale, ...pick })}
        </div>
        <Upright height={pick.height} figure={String(size.height)} />
      </div>
      <div className="mt-1">
        <Dimension width={pick.width} figure={`${size.width} px`} />
      </div>
      <figcaption className="figure mt-1 text-soft">{ratioWords(scale)}</figcaption>
    </figure>
  );
}

interface Box {
  width: number;
  height: number;
}

const scaled = ({ width, height }: Box, scale: number) => ({ width: width * scale, height: height * scale });

const ratioWords = (scale: number) => `scale 1:${scale > 0.95 ? 1 : Number((1 / scale).toFixed(1))}`;

/** Where a limit of the range lies; all of them stand in the lower left corner, as on a shelf. */
function Outline({ box, dash, label }: { box: Box; dash: string; label: string }) {
  return (
    <span className="absolute bottom-0 left-0" style={box}>
      <svg
        aria-hidden
        viewBox="0 0 1 1"
        preserveAspectRatio="none"
        className="absolute inset-0 size-full overflow-visible"
      >
        <path
          d="M0 0H1V1H0Z"
          fill="none"
          stroke="var(--measure)"
          strokeDasharray={dash}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {box.width > 34 && box.height > 18 && (
        <span className="figure absolute top-0.5 right-1 bg-sheet px-0.5 text-measure">{label}</span>
      )}
    </span>
  );
}

function Picture({ sheet, width, height }: { sheet: Sheet } & Box) {
  const id = useId();
  return (
    <svg
      aria-hidden
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
      className="absolute bottom-0 left-0 overflow-visible"
      style={{ width, height }}
    >
      <defs>
        <pattern id={id} width={8 / width} height={8 / height} patternUnits="userSpaceOnUse">
          <path
            d={`M0 ${8 / height}L${8 / width} 0`}
            stroke="var(--ink-soft)"
            vectorEffect="non-scaling-stroke"
          />
        </pattern>
      </defs>
      <rect width="1" height="1" fill={sheet.grounds[0] ?? "#ffffff"} stroke="none" />
      <path
        d={sheet.cut ?? "M0 0H1V1H0Z"}
        fill="var(--measure-faint)"
        stroke="var(--strong-line)"
        vectorEffect="non-scaling-stroke"
      />
      {sheet.veil && <rect width="1" height="1" fill={sheet.veil.colour} opacity={sheet.veil.opacity} />}
      {sheet.covered.map((zone, number) => (
        <rect key={number} {...place(zone)} fill={`url(#${CSS.escape(id)})`} stroke="var(--ink-soft)" />
      ))}
      {sheet.windows.map((one, number) => (
        <rect
          key={number}
          {...place(one)}
          fill="none"
          stroke="var(--measure)"
          strokeDasharray="6 2 1 2"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

const place = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({
  x,
  y,
  width,
  height,
  vectorEffect: "non-scaling-stroke" as const,
});

function Upright({ height, figure }: { height: number; figure: string }) {
  return (
    <div aria-hidden className="flex items-center gap-1 text-measure" style={{ height: Math.max(height, 3) }}>
      <div className="relative h-full w-[7px] border-y border-measure">
        <div className="absolute inset-y-0 left-[3px] border-l border-measure" />
      </div>
      <span className="figure">{figure}</span>
    </div>
  );
}
