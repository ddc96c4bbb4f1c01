import { useMemo, useState } from "react";

import type { FitOut } from "../../api/client";

export interface Selection {
  ids: string[];
  has: (id: string) => boolean;
  select: (ids: string[]) => void;
  /** Adds a part to what is selected, or takes it out. */
  toggle: (id: string) => void;
  /** The part whose words are being typed or whose picture is being moved inside; null for none. */
  inside: string | null;
  goInside: (id: string | null) => void;
}

/** Which parts are being worked on. Parts that went away are no longer selected. */
export function useSelection(
  fit: FitOut | undefined,
  chosen: string[] | null,
  setChosen: (ids: string[]) => void,
): Selection {
  const [inside, setInside] = useState<string | null>(null);
  const known = useMemo(() => new Set(fit?.piece.document.parts.map((part) => part.id)), [fit]);
  const front = fit?.parts.at(-1)?.part;
  // Until somebody chooses, the one part of a simple piece is the one to work on.
  const ids = (chosen ?? (fit?.parts.length === 1 && front ? [front] : [])).filter((id) => known.has(id));
  return {
    ids,
    has: (id) => ids.includes(id),
    select: (next) => {
      setChosen(next);
      setInside((now) => (now && next.includes(now) ? now : null));
    },
    toggle: (id) => setChosen(ids.includes(id) ? ids.filter((entry) => entry !== id) : [...ids, id]),
    inside: inside && ids.includes(inside) ? inside : null,
    goInside: setInside,
  };
}
