import type { Box } from "./pan";

/** A free distance beside a box, drawn from (x, y) over `length` px along its axis. */
export interface Gap {
  axis: "x" | "y";
  x: number;
  y: number;
  length: number;
  to: string;
}

/** The free distances on all four sides of a box: to the next part that stands beside it, else to the edge. */
export function gapsAround(
  box: Box,
  others: { box: Box; name: string }[],
  width: number,
  height: number,
): Gap[] {
  const level = others.filter(
    ({ box: other }) => other.y < box.y + box.height && box.y < other.y + other.height,
  );
  const upright = others.filter(
    ({ box: other }) => other.x < box.x + box.width && box.x < other.x + other.width,
  );
  const right = box.x + box.width;
  const bottom = box.y + box.height;
  const [middleX, middleY] = [box.x + box.width / 2, box.y + box.height / 2];
  const before = last(level, (other) => other.x + other.width, box.x);
  const after = first(level, (other) => other.x, right, width);
  const above = last(upright, (other) => other.y + other.height, box.y);
  const below = first(upright, (other) => other.y, bottom, height);
  return [
    { axis: "x", x: before.at, y: middleY, length: box.x - before.at, to: before.name },
    { axis: "x", x: right, y: middleY, length: after.at - right, to: after.name },
    { axis: "y", x: middleX, y: above.at, length: box.y - above.at, to: above.name },
    { axis: "y", x: middleX, y: bottom, length: below.at - bottom, to: below.name },
  ];
}

type Others = { box: Box; name: string }[];

function last(others: Others, end: (box: Box) => number, before: number) {
  let found = { at: 0, name: "edge" };
  for (const { box, name } of others) {
    const at = end(box);
    if (at <= before + 0.01 && at > found.at) found = { at, name };
  }
  return found;
}

function first(others: Others, start: (box: Box) => number, after: number, edge: number) {
  let found = { at: edge, name: "edge" };
  for (const { box, name } of others) {
    const at = start(box);
    if (at >= after - 0.01 && at < found.at) found = { at, name };
  }
  return found;
}
