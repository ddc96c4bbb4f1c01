import { useState } from "react";

import { useDocument, type Document } from "./useDocument";
import { useProof, type ProofSize } from "./useProof";
import { useSelection, type Selection } from "./useSelection";

export type { Conflict, Field } from "./useDocument";

export interface Bench extends Document, Pick<ProofSize, "drawProofAt" | "proofAt"> {
  workspace: string;
  selection: Selection;
  /** Who waits for a colour that is clicked on the proof. */
  picking: ((colour: string) => void) | null;
  pick: (take: ((colour: string) => void) | null) => void;
}

/** Everything the bench does to one fit: its document, what is selected, the proof, a colour picked from it. */
export function useBench(workspace: string, id: string): Bench {
  const [picking, setPicking] = useState<((colour: string) => void) | null>(null);
  const [chosen, choose] = useState<string[] | null>(null);
  const proof = useProof(workspace, id);
  const document = useDocument(workspace, id, proof, choose);
  const selection = useSelection(document.fit, chosen, choose);
  return {
    ...document,
    workspace,
    selection,
    drawProofAt: proof.drawProofAt,
    proofAt: proof.proofAt,
    picking,
    pick: (take) => setPicking(() => take),
  };
}
