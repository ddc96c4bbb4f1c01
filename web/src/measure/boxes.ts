import type { Box } from "./pan";

export interface Point {
  x: number;
  y: number;
}

/** One of the eight handles: -1, 0 or 1 along each axis. */
export interface Handle {
  x: -1 | 0 | 1;
  y: -1 | 0 | 1;
}

export const HANDLES: Handle[] = [
  { x: -1, y: -1 },
  { x: 0, y: -1 },
  { x: 1, y: -1 },
  { x: -1, y: 0 },
  { x: 1, y: 0 },
  { x: -1, y: 1 },
  { x: 0, y: 1 },
  { x: 1, y: 1 },
];

const LEAST_PX = 2;

export const centreOf = (box: Box): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });

export const moved = (box: Box, dx: number, dy: number): Box => ({ ...box, x: box.x + dx, y: box.y + dy });

export const scaledBox = (box: Box, by: number): Box => ({
  x: box.x * by,
  y: box.y * by,
  width: box.width * by,
  height: box.height * by,
});

export const rounded = (value: number, digits = 2) => Math.round(value * 10 ** digits) / 10 ** digits;

export function turnedBy({ x, y }: Point, degrees: number): Point {
  const angle = (degrees * Math.PI) / 180;
  return { x: x * Math.cos(angle) - y * Math.sin(angle), y: x * Math.sin(angle) + y * Math.cos(angle) };
}

/**
 * A box, turned about its middle, after one of its handles was moved by (dx, dy). The opposite corner or side stays
 * where it is; with `keepRatio` a corner keeps the box's shape.
 */
export function resized(box: Box, handle: Handle, by: Point, turn: number, keepRatio: boolean): Box {
  const local = turnedBy(by, -turn);
  let width = Math.max(LEAST_PX, box.width + handle.x * local.x);
  let height = Math.max(LEAST_PX, box.height + handle.y * local.y);
  if (keepRatio && handle.x && handle.y) {
    const factor = Math.max(width / box.width, height / box.height);
    [width, height] = [box.width * factor, box.height * factor];
  }
  const shift = turnedBy(
    { x: (handle.x * (width - box.width)) / 2, y: (handle.y * (height - box.height)) / 2 },
    turn,
  );
  const middle = centreOf(box);
  return { x: middle.x + shift.x - width / 2, y: middle.y + shift.y - height / 2, width, height };
}

/** The turn of a part whose turning handle was moved to a point, in degrees from -180 to 180. */
export function turnTowards(middle: Point, to: Point, step: number): number {
  const angle = (Math.atan2(to.x - middle.x, middle.y - to.y) * 180) / Math.PI;
  return step > 0 ? Math.round(angle / step) * step : rounded(angle, 1);
}

/** The box around several boxes. */
export function around(boxes: Box[]): Box {
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  const right = Math.max(...boxes.map((box) => box.x + box.width));
  const bottom = Math.max(...boxes.map((box) => box.y + box.height));
  return { x, y, width: right - x, height: bottom - y };
}

/** The CSS transform that shows a picture drawn for one box and turn at another. */
export function carried(from: Box, fromTurn: number, to: Box, toTurn: number, scale: number): string {
  const [a, b] = [centreOf(from), centreOf(to)];
  return [
    `translate(${b.x * scale}px, ${b.y * scale}px)`,
    `rotate(${toTurn}deg)`,
    `scale(${to.width / from.width}, ${to.height / from.height})`,
    `rotate(${-fromTurn}deg)`,
    `translate(${-a.x * scale}px, ${-a.y * scale}px)`,
  ].join(" ");
}
