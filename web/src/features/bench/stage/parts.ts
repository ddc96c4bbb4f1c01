import type { DocumentPart, FitOut, PartOut, Schemas } from "../../../api/client";
import type { Box } from "../../../measure/pan";

/** The rectangle by which a part is moved and resized: a picture's own box, the room that words and shapes have. */
export const rectOf = (part: PartOut): Box => (part.artwork ? part.box : part.stands);

/** Pictures and marks keep their shape at the corners; words and shapes take any. */
export const keepsRatio = (part: PartOut): boolean => part.artwork != null;

export const documentPart = (fit: FitOut, id: string): DocumentPart | undefined =>
  fit.piece.document.parts.find((part) => part.id === id);

/** A part as it is in this placement; the server has applied what differs. */
export function partHere<T extends DocumentPart>(fit: FitOut, part: T): T {
  return (fit.here[part.id] ?? part) as T;
}

/** Whether a picture fills the whole proof, so that dragging moves its focus instead of the part. */
export function fillsAll(fit: FitOut, part: PartOut): boolean {
  const own = documentPart(fit, part.part);
  if (!own || part.artwork?.mode !== "fill") return false;
  return partHere(fit, own as Schemas["ArtworkPart"]).stands === "fill";
}

/** Puts the focus on a part of the proof, where its keys work. */
export function focusOn(part: string): void {
  document.querySelector<HTMLElement>(`[data-stage] [data-part="${CSS.escape(part)}"]`)?.focus();
}
