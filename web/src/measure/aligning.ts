import { around } from "./boxes";
import type { Box } from "./pan";

export type Side = "left" | "centre" | "right" | "top" | "middle" | "bottom";

/** Boxes lined up by a side or a middle of the box around them. */
export function aligned(boxes: Box[], side: Side): Box[] {
  const whole = around(boxes);
  const places: Record<Side, (box: Box) => Partial<Box>> = {
    left: () => ({ x: whole.x }),
    centre: (box) => ({ x: whole.x + (whole.width - box.width) / 2 }),
    right: (box) => ({ x: whole.x + whole.width - box.width }),
    top: () => ({ y: whole.y }),
    middle: (box) => ({ y: whole.y + (whole.height - box.height) / 2 }),
    bottom: (box) => ({ y: whole.y + whole.height - box.height }),
  };
  return boxes.map((box) => ({ ...box, ...places[side](box) }));
}

/** Boxes with the same free distance between each and the next; the outer ones stay where they are. */
export function spacedEvenly(boxes: Box[], axis: "x" | "y"): Box[] {
  const length = axis === "x" ? "width" : "height";
  const order = boxes.map((_, index) => index).sort((one, two) => boxes[one]![axis] - boxes[two]![axis]);
  const whole = around(boxes);
  const used = boxes.reduce((sum, box) => sum + box[length], 0);
  const gap = (whole[length] - used) / (boxes.length - 1);
  const result = [...boxes];
  let at = whole[axis];
  for (const index of order) {
    result[index] = { ...boxes[index]!, [axis]: at };
    at += boxes[index]![length] + gap;
  }
  return result;
}
