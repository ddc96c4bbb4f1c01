import type { FitOut } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import type { Bench } from "./useBench";

/** Where the parts stand: as composed, arranged for this shape by calculation, or by hand; and the way back. */
export function Arranging({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const composed = fit.piece.document.composed;
  const hand = new Set(fit.by_hand.map((entry) => entry.split(".")[0])).size;
  const press = (words: string, act: () => void) => (
    <Button look="bare" className="min-h-6 text-left text-[12px]" onClick={act}>
      {words}
    </Button>
  );
  if (!composed && fit.parts.length < 2) return null;
  return (
    <section aria-label="Other shapes" className="mt-4 text-[12px] text-soft">
      <p role="status">
        {!composed
          ? "In places of other shapes the parts keep their boxes."
          : !fit.arranged
            ? "Composed in this shape. Places of other shapes follow by calculation."
            : hand > 0
              ? `${plural(hand, "part", "parts")} by hand; the others are arranged around ${hand === 1 ? "it" : "them"}.`
              : `Arranged for this shape, from ${composed.width} × ${composed.height} px.`}
      </p>
      {!composed && press("Arrange them from this one", () => bench.compose(true))}
      {composed && !fit.arranged && press("Keep the boxes everywhere", () => bench.compose(false))}
      {fit.arranged && hand > 0 && press("Let all go", () => bench.takeBack(fit.by_hand))}
      {fit.arranged && press("Arrange the others from here instead", () => bench.compose(true))}
    </section>
  );
}
