import type { RunField, RunPlace } from "../../api/runQueries";

export const ROW_PX = 88;
export const TALL_PX = 52;
const WIDEST_PX = 118;
const NUMBER_PX = 90;
const AROUND_PX = 16;
const NARROWEST_PX = 84; // so that its state can be read

/** How wide a place's proof is drawn in a row. */
export function widthOf(place: RunPlace): number {
  return Math.min((TALL_PX * place.width) / place.height, WIDEST_PX);
}

/** The columns of the grid: number, proofs, cells. */
export function columnsOf(places: RunPlace[], fields: RunField[]): string {
  const proofs = places.map((place) => `${Math.max(widthOf(place), NARROWEST_PX) + AROUND_PX}px`);
  const cells = fields.map((field) => (isNarrow(field) ? "minmax(96px,0.6fr)" : "minmax(150px,1.6fr)"));
  return [`${NUMBER_PX}px`, ...proofs, ...cells].join(" ");
}

const isNarrow = ({ kind }: RunField) => kind === "colour" || kind === "shown" || kind === "number";
