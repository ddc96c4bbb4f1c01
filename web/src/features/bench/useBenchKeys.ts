import { useEffect } from "react";

import type { FitOut } from "../../api/client";
import { rounded } from "../../measure/boxes";
import type { Gestures } from "./stage/useGesture";
import { documentPart, focusOn } from "./stage/parts";
import { duplicate, inFront, partFields, remove } from "./partActions";
import type { Bench } from "./useBench";
import { isTyping } from "../../ui/isTyping";

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const FAR_PX = 10;
const TURN = 1;
const FAR_TURN = 15;

/** Every key of the bench with what it does; the help sheet lists the same. */
export const KEYS: [string, string][] = [
  ["Tab", "go from part to part on the proof"],
  ["N, Shift + N", "go to the next part in front, or the one behind"],
  ["Shift + click", "select several parts"],
  ["Arrow keys", "move what is selected by 1 px of the file, with Shift by 10"],
  ["Ctrl + arrow keys", "make it larger or smaller by 1 px, with Shift by 10"],
  [", and .", "turn it by 1°, with Shift by 15°"],
  ["Page up, Page down", "bring it to the front of the next part, or behind it"],
  ["Enter or double click", "type the words, or move a picture inside its box"],
  ["+ and −", "zoom a picture inside its box (the wheel does it too)"],
  ["Escape", "leave what you are in, then select nothing"],
  ["Ctrl + D", "duplicate"],
  ["Delete", "take the part away"],
  ["H, L", "hide or show it, lock or unlock it"],
  ["Ctrl + Z, Ctrl + Shift + Z", "undo, redo"],
  ["Space", "play what moves, or stop it"],
  ["Alt while dragging", "move freely, without snapping"],
  ["?", "this list"],
];

/** Keys that work on what is selected, wherever the focus is, unless somebody types. */
export function useBenchKeys(bench: Bench, fit: FitOut, gestures: Gestures): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || bench.conflict || document.querySelector("[role='dialog']")) return;
      if (event.key === "Escape") return leave(bench);
      if (event.key.toLowerCase() === "n" && !event.ctrlKey && !event.metaKey && !event.altKey)
        return goOn(bench, fit, event.shiftKey ? -1 : 1);
      const { ids } = bench.selection;
      if (ids.length === 0) return;
      if (pressed(event, bench, fit, gestures, ids)) event.preventDefault();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}

function leave(bench: Bench): void {
  if (bench.selection.inside) bench.selection.goInside(null);
  else bench.selection.select([]);
}

/** Goes to the part that stands next in front of the chosen one, or behind it; around at the ends. */
function goOn(bench: Bench, fit: FitOut, by: 1 | -1): void {
  const there = fit.parts.filter((part) => !documentPart(fit, part.part)?.locked);
  if (there.length === 0) return;
  const now = there.findIndex((part) => part.part === bench.selection.ids.at(-1));
  const next = there[now < 0 && by < 0 ? there.length - 1 : (now + by + there.length) % there.length]!;
  bench.selection.select([next.part]);
  focusOn(next.part);
}

/** Does what a key stands for; whether there was anything to do. */
function pressed(
  event: KeyboardEvent,
  bench: Bench,
  fit: FitOut,
  gestures: Gestures,
  ids: string[],
): boolean {
  const act = actionOf(event, bench, fit, gestures, ids);
  act?.();
  return act !== undefined;
}

function actionOf(
  event: KeyboardEvent,
  bench: Bench,
  fit: FitOut,
  gestures: Gestures,
  ids: string[],
): (() => void) | undefined {
  const arrow = ARROWS[event.key];
  const control = event.ctrlKey || event.metaKey;
  if (arrow) {
    const step = event.shiftKey ? FAR_PX : 1;
    return () => gestures.nudge(arrow[0] * step, arrow[1] * step, control);
  }
  if (control) return event.key.toLowerCase() === "d" ? () => duplicate(bench, fit, ids) : undefined;
  const turn = TURNS[event.key];
  const each = (step: string, field: string, value: (now: unknown) => unknown) => () =>
    bench.change(step, partFields(fit, ids, field, value));
  if (turn) return each("turn", "rotation", (now) => turned(Number(now ?? 0) + turn));
  const plain: Record<string, () => void> = {
    PageUp: () => inFront(bench, fit, ids[0]!, 1),
    PageDown: () => inFront(bench, fit, ids[0]!, -1),
    Delete: () => remove(bench, fit, ids),
    Backspace: () => remove(bench, fit, ids),
    h: each("hide or show", "hidden", (now) => !now),
    l: each("lock or unlock", "locked", (now) => !now),
  };
  return event.altKey ? undefined : plain[event.key];
}

// Shifted keys are other letters on other keyboards: both ways of the two keys count.
const TURNS: Record<string, number> = {
  ",": -TURN,
  ".": TURN,
  "<": -FAR_TURN,
  ">": FAR_TURN,
  ";": -FAR_TURN,
  ":": FAR_TURN,
};

const turned = (degrees: number) => rounded(((degrees + 540) % 360) - 180, 1);
