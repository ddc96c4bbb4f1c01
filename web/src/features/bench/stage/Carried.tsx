import { useEffect } from "react";

import { partUrl, proofUrl } from "../../../api/queries";
import type { FitOut } from "../../../api/client";
import { carried } from "../../../measure/boxes";
import type { Bench } from "../useBench";
import type { Gesture } from "./useGesture";

const POINTED_MS = 60; // a pointer that only passes over a part fetches nothing

interface Props {
  bench: Bench;
  fit: FitOut;
  gesture: Gesture;
  scale: number;
  drawn: number;
}

/** What is being dragged: the parts' own picture, moved by the browser while the server has nothing to do. */
export function Carried({ bench, fit, gesture, scale, drawn }: Props) {
  const ids = gesture.parts.map((part) => part.part).join(",");
  const first = gesture.parts[0]!;
  const turn = gesture.turn ?? first.rotation;
  return (
    <img
      src={partUrl(proofUrl(bench.workspace, fit.id, fit.key, drawn), "only", ids)}
      alt=""
      draggable={false}
      className="pointer-events-none absolute top-0 left-0 max-w-none will-change-transform"
      style={{
        width: fit.width * scale,
        height: fit.height * scale,
        transformOrigin: "0 0",
        transform: carried(gesture.from[0]!, first.rotation, gesture.to[0]!, turn, scale),
      }}
    />
  );
}

/** Has the browser fetch what a drag would need as soon as parts are selected or pointed at. */
export function usePrepared(bench: Bench, fit: FitOut, drawn: number, pointed: string | null): void {
  const selected = bench.selection.ids.filter((id) => fit.parts.some((part) => part.part === id));
  const ids = (pointed && !selected.includes(pointed) ? [pointed] : selected).join(",");
  useEffect(() => {
    if (!ids) return;
    const proof = proofUrl(bench.workspace, fit.id, fit.key, drawn);
    const fetching = setTimeout(() => {
      for (const which of ["only", "without"] as const) new Image().src = partUrl(proof, which, ids);
    }, POINTED_MS);
    return () => clearTimeout(fetching);
  }, [bench.workspace, fit.id, fit.key, drawn, ids]);
}
