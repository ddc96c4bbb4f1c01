import { useRef, useState, type PointerEvent } from "react";

import type { Schemas } from "../../api/client";

export interface DrawnBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

type Place = Schemas["LearntPlaceOut"];

interface Props {
  address: string;
  places: Place[];
  chosen: number;
  choose: (number: number) => void;
  /** What somebody draws, in px of the screenshot; null where a picture is looked for. */
  drawn: DrawnBox | null;
  draw?: (box: DrawnBox) => void;
}

/** The screenshot with what was found in it, or with the box that is drawn on it. */
export function ShotView({ address, places, chosen, choose, drawn, draw }: Props) {
  const image = useRef<HTMLImageElement>(null);
  const start = useRef<{ x: number; y: number } | null>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const at = (event: PointerEvent) => {
    const frame = image.current!.getBoundingClientRect();
    const scale = size.width / frame.width;
    return { x: (event.clientX - frame.left) * scale, y: (event.clientY - frame.top) * scale };
  };
  const follow = (event: PointerEvent) => {
    if (!start.current || !draw) return;
    const here = at(event);
    const [x, y] = [Math.min(start.current.x, here.x), Math.min(start.current.y, here.y)];
    draw({
      x: Math.max(0, Math.round(x)),
      y: Math.max(0, Math.round(y)),
      width: Math.round(Math.abs(here.x - start.current.x)),
      height: Math.round(Math.abs(here.y - start.current.y)),
    });
  };
  return (
    <div
      className={`relative mt-3 ${draw ? "cursor-crosshair touch-none" : ""}`}
      onPointerDown={(event) => {
        if (!draw) return;
        event.preventDefault();
        start.current = at(event);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={follow}
      onPointerUp={() => (start.current = null)}
    >
      <img
        ref={image}
        src={address}
        alt="The screenshot"
        draggable={false}
        onLoad={(event) =>
          setSize({ width: event.currentTarget.naturalWidth, height: event.currentTarget.naturalHeight })
        }
        className="block max-h-[60vh] max-w-full object-contain object-left-top"
      />
      {size.width > 0 && (
        <svg
          viewBox={`0 0 ${size.width} ${size.height}`}
          className="absolute inset-0 h-full max-w-full"
          preserveAspectRatio="xMinYMin meet"
          role="group"
          aria-label="Found here"
        >
          <defs>
            <pattern
              id="hatch"
              width="8"
              height="8"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="8" height="8" fill="var(--sheet)" fillOpacity="0.55" />
              <path d="M0 0V8" stroke="var(--measure)" strokeWidth="3" />
            </pattern>
          </defs>
          {places.map(({ learnt }, number) => (
            <g key={number} opacity={number === chosen ? 1 : 0.6}>
              {number === chosen && <Zones learnt={learnt} />}
              <rect
                {...learnt.box}
                rx={learnt.cut.shape === "circle" ? learnt.box.width / 2 : learnt.cut.radius}
                fill="transparent"
                stroke="var(--measure)"
                strokeWidth={number === chosen ? 3 : 2}
                strokeDasharray={number === chosen ? undefined : "6 4"}
                vectorEffect="non-scaling-stroke"
                className="cursor-pointer"
                role="button"
                tabIndex={0}
                aria-pressed={number === chosen}
                aria-label={`Place ${number + 1}, ${Math.round(learnt.box.width)} by ${Math.round(learnt.box.height)} px`}
                onClick={() => choose(number)}
                onKeyDown={(event) => event.key === "Enter" && choose(number)}
              />
            </g>
          ))}
          {drawn && drawn.width > 0 && (
            <rect
              {...drawn}
              fill="none"
              stroke="var(--measure)"
              strokeWidth={2}
              vectorEffect="non-scaling-stroke"
            />
          )}
        </svg>
      )}
    </div>
  );
}

function Zones({ learnt }: { learnt: Place["learnt"] }) {
  return (
    <>
      {learnt.covered.map((zone, number) => (
        <rect key={number} x={zone.x} y={zone.y} width={zone.width} height={zone.height} fill="url(#hatch)" />
      ))}
    </>
  );
}
