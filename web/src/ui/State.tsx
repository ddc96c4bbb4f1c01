import {
  Ban,
  Check,
  Clock3,
  LoaderCircle,
  OctagonX,
  Square,
  TriangleAlert,
  type LucideIcon,
} from "lucide-react";

import type { PlaceState } from "../api/client";

interface Look {
  symbol: LucideIcon;
  colour: string;
}

export const STATES: Record<PlaceState, Look> = {
  fits: { symbol: Check, colour: "text-fits" },
  risky: { symbol: TriangleAlert, colour: "text-risky" },
  refused: { symbol: Ban, colour: "text-refused" },
  "out of date": { symbol: Clock3, colour: "text-outdated" },
  empty: { symbol: Square, colour: "text-empty" },
  failed: { symbol: OctagonX, colour: "text-refused" },
  working: { symbol: LoaderCircle, colour: "text-soft" },
};

/** A state as a shape, a colour and a word. */
export function State({ state, why }: { state: PlaceState; why?: string }) {
  const { symbol: Symbol, colour } = STATES[state];
  return (
    <span className={`flex items-start gap-1.5 text-[12px] leading-[16px] ${colour}`}>
      <Symbol
        aria-hidden
        size={13}
        strokeWidth={2.6}
        className={`mt-[1.5px] shrink-0 ${state === "empty" ? "[stroke-dasharray:3_3]" : ""}`}
      />
      <span>
        <b className="font-semibold">{state}</b>
        {why && <span className="text-soft"> · {why}</span>}
      </span>
    </span>
  );
}
