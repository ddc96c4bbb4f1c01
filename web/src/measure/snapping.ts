import type { Box } from "./pan";

/** A line across the picture that a part may snap to; `at` in px of the file. */
export interface Line {
  axis: string;
  at: number;
  name: string;
}

export interface Snapped {
  dx: number;
  dy: number;
  lines: Line[];
}

const ends = (box: Box, axis: string): number[] => {
  const [start, length] = axis === "x" ? [box.x, box.width] : [box.y, box.height];
  return [start, start + length / 2, start + length];
};

/** The sides and middles of other parts as lines. */
export function linesOf(boxes: Box[], names: string[]): Line[] {
  return boxes.flatMap((box, index) =>
    ["x", "y"].flatMap((axis) => ends(box, axis).map((at) => ({ axis, at, name: names[index] ?? "" }))),
  );
}

/** How far a moved box still has to go so that its sides or middle lie on a line within `reach` px. */
export function snapped(box: Box, lines: Line[], reach: number): Snapped {
  const across = nearest(ends(box, "x"), lines, "x", reach);
  const down = nearest(ends(box, "y"), lines, "y", reach);
  return {
    dx: across?.by ?? 0,
    dy: down?.by ?? 0,
    lines: [across?.line, down?.line].filter((line) => line !== undefined),
  };
}

/** The same for one moving side of a box that is being resized. */
export function snappedSide(
  at: number,
  axis: string,
  lines: Line[],
  reach: number,
): { by: number; line?: Line } {
  const found = nearest([at], lines, axis, reach);
  return found ? { by: found.by, line: found.line } : { by: 0 };
}

function nearest(places: number[], lines: Line[], axis: string, reach: number) {
  let best: { by: number; line: Line } | undefined;
  for (const line of lines) {
    if (line.axis !== axis) continue;
    for (const place of places) {
      const by = line.at - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by) - 1e-6)) best = { by, line };
    }
  }
  return best;
}
