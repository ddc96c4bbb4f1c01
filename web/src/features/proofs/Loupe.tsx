import { useState, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";

const SIDE_PX = 176;
const STEP_PX = 8;

interface Props {
  /** How many times larger; 0 for none. */
  times: number;
  /** The scene as the server drew it, at its own density. */
  picture: string;
  width: number;
  height: number;
  name: string;
  children: ReactNode;
}

/** Shows the true pixels of a scene where the pointer is, or where the arrow keys have brought it. */
export function Loupe({ times, picture, width, height, name, children }: Props) {
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  if (!times) return <>{children}</>;
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setAt({ x: event.clientX - box.left, y: event.clientY - box.top });
  };
  const onKey = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const from = at ?? { x: width / 2, y: height / 2 };
    setAt({ x: within(from.x + step[0], width), y: within(from.y + step[1], height) });
  };
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label={`Magnifier over ${name}: arrow keys move it`}
      className="relative cursor-crosshair"
      onPointerMove={move}
      onPointerDown={move}
      onPointerLeave={() => setAt(null)}
      onFocus={() => setAt((before) => before ?? { x: width / 2, y: height / 2 })}
      onBlur={() => setAt(null)}
      onKeyDown={onKey}
    >
      {children}
      {at && (
        <span
          aria-hidden
          className="pointer-events-none absolute z-20 border-2 border-ink bg-paper"
          style={{
            width: SIDE_PX,
            height: SIDE_PX,
            left: within(at.x - SIDE_PX / 2, Math.max(0, width - SIDE_PX)),
            top: at.y + 24 + SIDE_PX > height && at.y > SIDE_PX ? at.y - SIDE_PX - 24 : at.y + 24,
            backgroundImage: `url("${picture}")`,
            backgroundSize: `${width * times}px ${height * times}px`,
            backgroundPosition: `${SIDE_PX / 2 - at.x * times}px ${SIDE_PX / 2 - at.y * times}px`,
            backgroundRepeat: "no-repeat",
            imageRendering: "pixelated",
          }}
        />
      )}
    </div>
  );
}

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-STEP_PX, 0],
  ArrowRight: [STEP_PX, 0],
  ArrowUp: [0, -STEP_PX],
  ArrowDown: [0, STEP_PX],
};

const within = (value: number, most: number) => Math.min(Math.max(value, 0), most);
