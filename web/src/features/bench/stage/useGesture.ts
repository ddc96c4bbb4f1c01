import { useEffect, useMemo, useRef, useState, type PointerEvent } from "react";

import type { FitOut, PartOut } from "../../../api/client";
import {
  around,
  centreOf,
  moved,
  resized,
  turnTowards,
  type Handle,
  type Point,
} from "../../../measure/boxes";
import type { Box } from "../../../measure/pan";
import { linesOf, snapped, snappedSide, type Line } from "../../../measure/snapping";
import type { Bench } from "../useBench";
import { keepsRatio, rectOf } from "./parts";

const SNAP_PX = 6; // on the screen
const TURN_STEP = 15; // degrees, with Shift
const SETTLE_MS = 350; // after the last arrow key the move is saved
const LINGER_MS = 120; // until the new proof has taken over from what was dragged

export interface Gesture {
  parts: PartOut[];
  from: Box[];
  to: Box[];
  turn: number | null;
  lines: Line[];
  done: boolean;
}

type Way = { kind: "move" } | { kind: "resize"; handle: Handle } | { kind: "turn" };

export interface Gestures {
  gesture: Gesture | null;
  begin: (event: PointerEvent, way: Way, parts: PartOut[]) => void;
  move: (event: PointerEvent) => void;
  end: () => void;
  /** Moves or enlarges what is selected by px of the file, from the keyboard. */
  nudge: (dx: number, dy: number, size: boolean) => void;
}

/** Dragging, resizing and turning parts: the browser only moves; the server answers on release. */
export function useGesture(bench: Bench, fit: FitOut, scale: number): Gestures {
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const start = useRef<{ at: Point; way: Way; middle: Point } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const lines = useMemo(() => linesBeside(fit, gesture?.parts ?? []), [fit, gesture?.parts]);

  const settled = gesture?.done && bench.outbox.state !== "saving";
  useEffect(() => {
    if (!settled) return;
    const soon = setTimeout(() => setGesture(null), LINGER_MS);
    return () => clearTimeout(soon);
  }, [settled, fit.key]);

  const save = (next: Gesture) => {
    setGesture({ ...next, lines: [], done: true });
    const placings = next.parts
      .map((part, index) => ({ part: part.part, ...next.to[index]! }))
      .filter((_, index) => next.to[index] !== next.from[index]);
    const turned = next.turn !== null && next.turn !== next.parts[0]!.rotation;
    const fields = turned ? [{ part: next.parts[0]!.part, field: "rotation", value: next.turn }] : [];
    if (placings.length > 0) bench.place(stepOf(next), placings, fields);
    else if (turned) bench.change("turn", fields);
    else setGesture(null);
  };

  const begin: Gestures["begin"] = (event, way, parts) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const from = parts.map(rectOf);
    const frame = event.currentTarget.closest("[data-stage]")!.getBoundingClientRect();
    const middle = centreOf(around(from));
    start.current = {
      at: { x: event.clientX, y: event.clientY },
      way,
      middle: { x: frame.left + middle.x * scale, y: frame.top + middle.y * scale },
    };
    setGesture({ parts, from, to: from, turn: null, lines: [], done: false });
  };

  const move: Gestures["move"] = (event) => {
    if (!start.current || !gesture || gesture.done) return;
    const { at, way, middle } = start.current;
    const by = { x: (event.clientX - at.x) / scale, y: (event.clientY - at.y) / scale };
    const reach = event.altKey ? 0 : SNAP_PX / scale;
    if (way.kind === "turn") {
      const step = event.shiftKey ? TURN_STEP : 0;
      setGesture({ ...gesture, turn: turnTowards(middle, { x: event.clientX, y: event.clientY }, step) });
    } else if (way.kind === "move") setGesture({ ...gesture, ...movedBy(gesture, by, lines, reach) });
    else setGesture({ ...gesture, ...resizedBy(gesture, way.handle, by, lines, reach) });
  };

  const end = () => {
    if (!start.current || !gesture) return;
    start.current = null;
    save(gesture);
  };

  const nudge: Gestures["nudge"] = (dx, dy, size) => {
    const parts = fit.parts.filter((part) => bench.selection.has(part.part));
    if (parts.length === 0) return;
    const running = gesture && !gesture.done && !start.current ? gesture : null;
    const from = running?.from ?? parts.map(rectOf);
    const to = (running?.to ?? from).map((box, index) => {
      if (!size) return moved(box, dx, dy);
      const keep = keepsRatio(parts[index]!);
      return resized(box, { x: 1, y: 1 }, { x: dx, y: keep ? (dx * box.height) / box.width : dy }, 0, keep);
    });
    const next = { parts, from, to, turn: null, lines: [], done: false };
    setGesture(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => save(next), SETTLE_MS);
  };

  return { gesture, begin, move, end, nudge };
}

function linesBeside(fit: FitOut, moving: PartOut[]): Line[] {
  const others = fit.parts.filter((part) => !moving.some((entry) => entry.part === part.part));
  const standing = others.filter((part) => !covers(part.box, fit));
  return [
    ...fit.guides,
    ...linesOf(
      standing.map((part) => part.box),
      standing.map((part) => part.name),
    ),
  ];
}

const covers = (box: Box, fit: FitOut) => box.width >= fit.width && box.height >= fit.height;

function movedBy(gesture: Gesture, by: Point, lines: Line[], reach: number): Pick<Gesture, "to" | "lines"> {
  const target = moved(around(gesture.from), by.x, by.y);
  const snap = snapped(target, lines, reach);
  return { to: gesture.from.map((box) => moved(box, by.x + snap.dx, by.y + snap.dy)), lines: snap.lines };
}

function resizedBy(
  gesture: Gesture,
  handle: Handle,
  by: Point,
  lines: Line[],
  reach: number,
): Pick<Gesture, "to" | "lines"> {
  const part = gesture.parts[0]!;
  const box = gesture.from[0]!;
  const keep = keepsRatio(part);
  const free = resized(box, handle, by, part.rotation, keep);
  if (part.rotation !== 0) return { to: [free], lines: [] };
  const across = handle.x
    ? snappedSide(handle.x > 0 ? free.x + free.width : free.x, "x", lines, reach)
    : { by: 0, line: undefined };
  const down =
    handle.y && !(keep && across.line)
      ? snappedSide(handle.y > 0 ? free.y + free.height : free.y, "y", lines, reach)
      : { by: 0, line: undefined };
  const to = resized(box, handle, { x: by.x + across.by, y: by.y + down.by }, 0, keep);
  return { to: [to], lines: [across.line, down.line].filter((line) => line !== undefined) };
}

function stepOf(gesture: Gesture): string {
  const what = gesture.parts.length > 1 ? `${gesture.parts.length} parts` : `“${gesture.parts[0]!.name}”`;
  const same = gesture.to.every((box, index) => box.width === gesture.from[index]!.width);
  return `${same ? "move" : "resize"} ${what}`;
}
