import type { FitOut, PartOut } from "../../../api/client";
import { around, HANDLES, rounded, type Handle } from "../../../measure/boxes";
import { gapsAround } from "../../../measure/neighbours";
import type { Box } from "../../../measure/pan";
import type { Bench } from "../useBench";
import { Gaps } from "./Gaps";
import { documentPart, rectOf } from "./parts";
import type { Gestures } from "./useGesture";

interface Props {
  bench: Bench;
  fit: FitOut;
  scale: number;
  gestures: Gestures;
}

/** What is selected: its frame with handles, its size, and its distances to edges and neighbours. */
export function SelectionFrame({ bench, fit, scale, gestures }: Props) {
  const { gesture } = gestures;
  const parts = gesture?.parts ?? fit.parts.filter((part) => bench.selection.has(part.part));
  if (parts.length === 0 || bench.selection.inside) return null;
  const boxes = gesture?.to ?? parts.map(rectOf);
  const others = fit.parts
    .filter((part) => !parts.includes(part) && !parts.some((entry) => entry.part === part.part))
    .map((part) => ({ box: part.box, name: part.name }));
  const whole = around(boxes);
  const only = parts.length === 1 ? parts[0]! : null;
  const locked = only && documentPart(fit, only.part)?.locked;
  return (
    <>
      {gesture?.lines.map((line) => (
        <span
          key={`${line.axis}${line.at}`}
          className="pointer-events-none absolute bg-measure"
          style={
            line.axis === "x"
              ? { left: line.at * scale, top: 0, bottom: 0, width: 1 }
              : { top: line.at * scale, left: 0, right: 0, height: 1 }
          }
        >
          <span className="figure absolute bg-sheet px-1 whitespace-nowrap text-measure">{line.name}</span>
        </span>
      ))}
      {parts.map((part, index) => (
        <Frame key={part.part} box={boxes[index]!} turn={gesture?.turn ?? part.rotation} scale={scale}>
          {only && !locked && <Handles part={part} box={boxes[index]!} scale={scale} gestures={gestures} />}
        </Frame>
      ))}
      <Gaps gaps={gapsAround(whole, others, fit.width, fit.height)} scale={scale} />
      {gesture && !gesture.done && <Size box={whole} turn={gesture.turn} scale={scale} />}
    </>
  );
}

function Frame({
  box,
  turn,
  scale,
  children,
}: {
  box: Box;
  turn: number;
  scale: number;
  children: React.ReactNode;
}) {
  return (
    <div
      className="pointer-events-none absolute border border-measure"
      style={{
        left: box.x * scale,
        top: box.y * scale,
        width: box.width * scale,
        height: box.height * scale,
        rotate: `${turn}deg`,
      }}
    >
      {children}
    </div>
  );
}

interface HandlesProps {
  part: PartOut;
  box: Box;
  scale: number;
  gestures: Gestures;
}

const LEAST_FOR_SIDES_PX = 48; // on the screen; a smaller frame has room for its corners only

function Handles({ part, box, scale, gestures }: HandlesProps) {
  const corners = HANDLES.filter((handle) => handle.x && handle.y);
  const sides = HANDLES.filter((handle) => !(handle.x && handle.y));
  const roomy = Math.min(box.width, box.height) * scale >= LEAST_FOR_SIDES_PX;
  const free = !part.artwork || part.artwork.mode === "fill";
  const shown = roomy && free ? [...sides, ...corners] : corners;
  return (
    <>
      {shown.map((handle) => (
        <Knob
          key={`${handle.x}${handle.y}`}
          handle={handle}
          onDown={(event) => gestures.begin(event, { kind: "resize", handle }, [part])}
          gestures={gestures}
        />
      ))}
      <span
        aria-hidden
        title="Turn"
        className="pointer-events-auto absolute -top-8 -right-8 flex size-6 cursor-grab touch-none items-center justify-center"
        onPointerDown={(event) => {
          event.stopPropagation();
          gestures.begin(event, { kind: "turn" }, [part]);
        }}
        onPointerMove={gestures.move}
        onPointerUp={gestures.end}
        onPointerCancel={gestures.end}
      >
        <span className="size-2.5 rounded-full border-2 border-measure bg-sheet" />
        <span className="absolute top-[17px] right-[17px] h-[13px] origin-top rotate-45 border-l border-measure" />
      </span>
    </>
  );
}

const CURSORS: Record<string, string> = {
  "11": "nwse-resize",
  "-1-1": "nwse-resize",
  "1-1": "nesw-resize",
  "-11": "nesw-resize",
};

interface KnobProps {
  handle: Handle;
  onDown: (event: React.PointerEvent) => void;
  gestures: Gestures;
}

/** A handle as a register mark: a small cross on the corner, with room around it to take hold of. */
function Knob({ handle, onDown, gestures }: KnobProps) {
  const corner = handle.x && handle.y;
  const cursor = CURSORS[`${handle.x}${handle.y}`] ?? (handle.x ? "ew-resize" : "ns-resize");
  return (
    <span
      aria-hidden
      data-handle={`${handle.x},${handle.y}`}
      className="pointer-events-auto absolute flex size-6 -translate-x-1/2 -translate-y-1/2 touch-none items-center justify-center"
      style={{ left: `${(handle.x + 1) * 50}%`, top: `${(handle.y + 1) * 50}%`, cursor }}
      onPointerDown={(event) => {
        event.stopPropagation();
        onDown(event);
      }}
      onPointerMove={gestures.move}
      onPointerUp={gestures.end}
      onPointerCancel={gestures.end}
    >
      {corner ? (
        <>
          <span className="absolute h-[2px] w-[13px] bg-measure" />
          <span className="absolute h-[13px] w-[2px] bg-measure" />
        </>
      ) : (
        <span className={`absolute bg-measure ${handle.x ? "h-[11px] w-[3px]" : "h-[3px] w-[11px]"}`} />
      )}
    </span>
  );
}

function Size({ box, turn, scale }: { box: Box; turn: number | null; scale: number }) {
  const words = turn === null ? `${rounded(box.width, 1)} × ${rounded(box.height, 1)}` : `${turn}°`;
  return (
    <span
      className="figure pointer-events-none absolute -translate-x-1/2 bg-measure px-1.5 py-0.5 whitespace-nowrap text-sheet"
      style={{ left: (box.x + box.width / 2) * scale, top: (box.y + box.height) * scale + 6 }}
    >
      {words}
    </span>
  );
}
