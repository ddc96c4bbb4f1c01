import { useState, type Dispatch, type SetStateAction } from "react";

/** What the pointer does on the picture while a cut-out is open. */
export type CutTool = "look" | "box" | "keep" | "drop" | "erase" | "restore";
export type View = "work" | "after" | "before" | "both";

export interface Tools {
  view: View;
  setView: Dispatch<SetStateAction<View>>;
  /** What lies behind clear parts: "checker" or a colour. */
  ground: string;
  setGround: (ground: string) => void;
  cut: CutTool;
  setCut: (tool: CutTool) => void;
  /** Of the brush, in fractions of the short side. */
  brushSize: number;
  setBrushSize: (size: number) => void;
  brushSoftness: number;
  setBrushSoftness: (softness: number) => void;
  /** The shape that a crop is held to: width to height, null for any. */
  ratio: number | null;
  setRatio: (ratio: number | null) => void;
}

/** The state of the screen that is nobody else's business: it is not saved. */
export function useTools(): Tools {
  const [view, setView] = useState<View>("work");
  const [ground, setGround] = useState("checker");
  const [cut, setCut] = useState<CutTool>("look");
  const [brushSize, setBrushSize] = useState(0.06);
  const [brushSoftness, setBrushSoftness] = useState(0.3);
  const [ratio, setRatio] = useState<number | null>(null);
  return {
    view, setView, ground, setGround, cut, setCut, brushSize, setBrushSize, brushSoftness, setBrushSoftness, ratio,
    setRatio,
  }; // prettier-ignore
}
