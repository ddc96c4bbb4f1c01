import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import { HANDLES, moved, resized, rounded, type Handle, type Point } from "../../../measure/boxes";
import type { Box } from "../../../measure/pan";
import type { Frame } from "../SheetDrawing";
import type { Draft } from "./useDraft";
import { anotherZone, patchOf, zonesOf, type Zone, type ZoneKind } from "./ZoneFields";

interface Props {
  draft: Draft;
  frame: Frame;
  zone: string | null;
  choose: (zone: string | null) => void;
}

/** What is done with the pointer: one zone moved or resized, or a new one drawn; boxes in drawn px. */
interface Gesture {
  id: string | null;
  handle: Handle | null;
  from: Point;
  start: Box;
  now: Box;
}

const LEAST_DRAWN_PX = 6;
const SNAP_PX = 5;
const KINDS: ZoneKind[] = ["windows", "covered"];
const SIDES = {
  "-1": { x: "left", y: "top" },
  "0": { x: "", y: "" },
  "1": { x: "right", y: "bottom" },
} as const;

/** Zones and windows on the drawing: drawn, moved, resized and taken away, by pointer and by keys. */
export function ZoneLayer({ draft, frame, zone: chosen, choose }: Props) {
  const layer = useRef<HTMLDivElement>(null);
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const at = (event: PointerEvent): Point => {
    const { left, top } = layer.current!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const save = (id: string, box: Box | null) => {
    const [kind, number] = partsOf(id);
    const zones = zonesOf(draft.sheet, kind);
    const next = zones.flatMap((one, index) =>
      index !== number ? [one] : box ? [{ ...one, ...fractions(box, frame) }] : [],
    );
    draft.set(patchOf(kind, next));
  };
  const begin = (event: PointerEvent, id: string | null, start: Box, handle: Handle | null) => {
    event.preventDefault();
    event.stopPropagation();
    layer.current!.setPointerCapture(event.pointerId);
    setGesture({ id, handle, from: at(event), start, now: start });
    choose(id);
  };
  const follow = (event: PointerEvent) => {
    if (!gesture) return;
    const here = at(event);
    const by = { x: here.x - gesture.from.x, y: here.y - gesture.from.y };
    setGesture({
      ...gesture,
      now: inside(after(gesture, by), frame, Boolean(gesture.handle) || !gesture.id),
    });
  };
  const end = () => {
    if (!gesture) return;
    setGesture(null);
    const { id, now, start } = gesture;
    if (id && now !== start) save(id, now);
    if (!id && now.width >= LEAST_DRAWN_PX && now.height >= LEAST_DRAWN_PX) {
      choose(`covered ${zonesOf(draft.sheet, "covered").length}`);
      draft.set(anotherZone(draft.sheet, "covered", fractions(now, frame)));
    }
  };
  const boxOf = (zone: Zone): Box => ({
    x: zone.x * frame.width,
    y: zone.y * frame.height,
    width: zone.width * frame.width,
    height: zone.height * frame.height,
  });
  return (
    <div
      ref={layer}
      className="absolute bottom-0 left-0 cursor-crosshair touch-none"
      style={{ width: frame.width, height: frame.height }}
      onPointerDown={(event) => {
        const from = at(event);
        begin(event, null, { ...from, width: 0, height: 0 }, null);
      }}
      onPointerMove={follow}
      onPointerUp={end}
      onPointerCancel={() => setGesture(null)}
    >
      {KINDS.flatMap((kind) =>
        zonesOf(draft.sheet, kind).map((zone, number) => {
          const id = `${kind} ${number}`;
          const box = gesture?.id === id ? gesture.now : boxOf(zone);
          return (
            <ZoneBox
              key={id}
              zone={zone}
              kind={kind}
              box={box}
              chosen={id === chosen}
              choose={() => choose(id)}
              begin={(event, handle) => begin(event, id, boxOf(zone), handle)}
              nudge={(handle, by) => {
                const px = { x: by.x * frame.scale, y: by.y * frame.scale };
                const start = boxOf(zone);
                const next = handle ? resized(start, handle, px, 0, false) : moved(start, px.x, px.y);
                save(id, inside(next, frame, Boolean(handle), 0));
              }}
              remove={() => {
                choose(null);
                save(id, null);
              }}
            />
          );
        }),
      )}
      {gesture && !gesture.id && (
        <span
          className="pointer-events-none absolute border border-measure bg-[var(--measure-faint)]"
          style={placed(gesture.now)}
        />
      )}
    </div>
  );
}

interface ZoneBoxProps {
  zone: Zone;
  kind: ZoneKind;
  box: Box;
  chosen: boolean;
  choose: () => void;
  begin: (event: PointerEvent, handle: Handle | null) => void;
  /** Moves it, or one of its handles, by px of the picture. */
  nudge: (handle: Handle | null, by: Point) => void;
  remove: () => void;
}

function ZoneBox({ zone, kind, box, chosen, choose, begin, nudge, remove }: ZoneBoxProps) {
  const keys = (handle: Handle | null) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (by) {
      event.preventDefault();
      event.stopPropagation();
      nudge(handle, { x: by[0]! * step, y: by[1]! * step });
    } else if ((event.key === "Delete" || event.key === "Backspace") && !handle) {
      event.preventDefault();
      remove();
    }
  };
  const what = kind === "windows" ? "window" : "covered zone";
  return (
    <div
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${zone.name}, ${what}; arrow keys move it, Delete takes it away`}
      onFocus={choose}
      onPointerDown={(event) => begin(event, null)}
      onKeyDown={keys(null)}
      className={`absolute cursor-move ${chosen ? "outline-2 outline-measure" : ""} ${kind === "windows" && !chosen ? "pointer-events-none" : ""}`}
      style={placed(box)}
    >
      {(chosen || (box.width > 40 && box.height > 16)) && (
        <span
          className={`figure pointer-events-auto absolute max-w-[200px] truncate bg-sheet px-0.5 ${chosen ? "bottom-full mb-1.5" : "top-0"} ${zone.x > 0.5 ? "right-0" : "left-0"}`}
        >
          {zone.name}
        </span>
      )}
      {chosen &&
        HANDLES.map((handle) => (
          <button
            key={`${handle.x}${handle.y}`}
            type="button"
            aria-label={`${edgeWords(handle)} of ${zone.name}; arrow keys move it`}
            onFocus={(event) => event.stopPropagation()}
            onPointerDown={(event) => begin(event, handle)}
            onKeyDown={keys(handle)}
            className="absolute z-10 size-2.5 -translate-x-1/2 -translate-y-1/2 border border-measure bg-sheet"
            style={{
              left: `${(handle.x + 1) * 50}%`,
              top: `${(handle.y + 1) * 50}%`,
              cursor: cursorOf(handle),
            }}
          />
        ))}
    </div>
  );
}

const placed = ({ x, y, width, height }: Box) => ({ left: x, top: y, width, height });

const partsOf = (id: string): [ZoneKind, number] => {
  const [kind, number] = id.split(" ");
  return [kind as ZoneKind, Number(number)];
};

function edgeWords({ x, y }: Handle): string {
  const words = [SIDES[`${y}`].y, SIDES[`${x}`].x].filter(Boolean).join(" ");
  return `${words} ${x && y ? "corner" : "edge"}`;
}

const cursorOf = ({ x, y }: Handle) =>
  !x ? "ns-resize" : !y ? "ew-resize" : x === y ? "nwse-resize" : "nesw-resize";

function after({ id, handle, start }: Gesture, by: Point): Box {
  if (handle) return resized(start, handle, by, 0, false);
  if (id) return moved(start, by.x, by.y);
  return {
    x: Math.min(start.x, start.x + by.x),
    y: Math.min(start.y, start.y + by.y),
    width: Math.abs(by.x),
    height: Math.abs(by.y),
  };
}

/** A box kept inside the picture, its edges snapping to the picture's: pushed in where it moves, else cut off. */
function inside(box: Box, frame: Frame, cuts: boolean, snap = SNAP_PX): Box {
  const [x, width] = along(box.x, box.width, frame.width, cuts, snap);
  const [y, height] = along(box.y, box.height, frame.height, cuts, snap);
  return { x, y, width, height };
}

function along(start: number, length: number, room: number, cuts: boolean, snap: number): [number, number] {
  let [from, to] = [start, start + length];
  if (!cuts) {
    const size = Math.min(length, room);
    from = Math.min(Math.max(0, start), room - size);
    if (from < snap) from = 0;
    if (room - from - size < snap) from = room - size;
    return [from, size];
  }
  if (from < snap) from = 0;
  if (to > room - snap) to = room;
  return [from, Math.max(1, to - from)];
}

const fractions = (box: Box, frame: Frame) => ({
  x: rounded(Math.max(0, box.x / frame.width), 4),
  y: rounded(Math.max(0, box.y / frame.height), 4),
  width: rounded(Math.min(1, box.width / frame.width), 4),
  height: rounded(Math.min(1, box.height / frame.height), 4),
});
