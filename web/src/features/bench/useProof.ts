import { useCallback, useRef, useState } from "react";

import type { FitOut } from "../../api/client";
import { proofUrl } from "../../api/queries";

export interface ProofSize {
  /** How wide the proof is drawn; each change brings the new one at this width. */
  drawProofAt: (width: number) => void;
  /** The picture of the proof with this key. */
  proofAt: (key: string, width: number) => string;
  /** The width that a save asks for, in px of the screen. */
  width: () => number;
  /** Keeps the proof that came in an answer. */
  brought: (fit: FitOut) => void;
}

/** The proof of a fit: how wide it is drawn, and where its picture comes from. */
export function useProof(workspace: string, id: string): ProofSize {
  const drawn = useRef(900);
  const [kept, setKept] = useState<{ key: string; url: string } | null>(null);
  const drawProofAt = useCallback((width: number) => {
    drawn.current = width;
  }, []);
  return {
    drawProofAt,
    width: () => Math.round(drawn.current),
    brought: (next) => next.proof && setKept({ key: next.key, url: next.proof }),
    proofAt: (key, width) => (kept?.key === key ? kept.url : proofUrl(workspace, id, key, width)),
  };
}
