import type { DocumentPart, FitOut, Schemas } from "../../api/client";
import { aligned, spacedEvenly, type Side } from "../../measure/aligning";
import type { Box } from "../../measure/pan";
import { documentPart, partHere, rectOf } from "./stage/parts";
import type { Bench, Field } from "./useBench";

const AWAY = 0.03; // of the short side: how far a duplicate stands from what it was made of

/** One field of several parts, each from its present value. */
export function partFields(
  fit: FitOut,
  ids: string[],
  field: string,
  value: (now: unknown) => unknown,
): Field[] {
  return ids.flatMap((id) => {
    const part = documentPart(fit, id);
    if (!part || (part.role === "ground" && field === "rotation")) return [];
    const now = (partHere(fit, part) as Record<string, unknown>)[field];
    return [{ part: id, field, value: value(now) }];
  });
}

const movable = (fit: FitOut, ids: string[]): DocumentPart[] =>
  fit.piece.document.parts.filter((part) => ids.includes(part.id) && part.role !== "ground");

export function remove(bench: Bench, fit: FitOut, ids: string[]): void {
  const parts = movable(fit, ids);
  if (parts.length === 0) return;
  const what = parts.length === 1 ? `“${fit.names[parts[0]!.id]}”` : `${parts.length} parts`;
  bench.act(
    `take ${what} away`,
    parts.map((part) => ({ part: part.id, act: "remove" as const })),
  );
  bench.selection.select([]);
}

export function duplicate(bench: Bench, fit: FitOut, ids: string[]): void {
  const parts = movable(fit, ids);
  if (parts.length === 0) return;
  bench.act(
    "duplicate",
    parts.map((part) => ({
      part: part.id,
      act: "add" as const,
      value: besides(partHere(fit, part)),
      at: null,
    })),
  );
}

function besides(part: DocumentPart): Record<string, unknown> {
  const { stands } = part as Schemas["ShapePart"];
  if (!stands || stands === "fill") return part;
  return { ...part, stands: { ...stands, dx: (stands.dx ?? 0) + AWAY, dy: (stands.dy ?? 0) + AWAY } };
}

/** Brings a part one step to the front (1) or to the back (-1). */
export function inFront(bench: Bench, fit: FitOut, id: string, by: number): void {
  const at = fit.piece.document.parts.findIndex((part) => part.id === id) + by;
  if (at < 1 || at >= fit.piece.document.parts.length) return;
  bench.act(by > 0 ? "bring forward" : "send back", [{ part: id, act: "move", at }]);
}

export function align(bench: Bench, fit: FitOut, ids: string[], side: Side): void {
  putAt(bench, fit, ids, `align by ${side}`, (boxes) => aligned(boxes, side));
}

export function spaceEvenly(bench: Bench, fit: FitOut, ids: string[], axis: "x" | "y"): void {
  putAt(bench, fit, ids, "space evenly", (boxes) => spacedEvenly(boxes, axis));
}

function putAt(bench: Bench, fit: FitOut, ids: string[], step: string, where: (boxes: Box[]) => Box[]): void {
  const parts = fit.parts.filter((part) => ids.includes(part.part));
  const boxes = where(parts.map(rectOf));
  bench.place(
    step,
    parts.map((part, index) => ({ part: part.part, ...boxes[index]! })),
  );
}
