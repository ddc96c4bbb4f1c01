import type { WallProof } from "../api/client";

/** Bytes against their limit as a thin gauge with its figures; the words are the server's. */
export function Gauge({ proof, colour }: { proof: WallProof; colour: string }) {
  const { bytes, max_bytes: limit } = proof;
  const share = bytes === null || !limit ? 0 : Math.min(1, bytes / limit);
  return (
    <span className="figure flex items-center gap-2 whitespace-nowrap text-soft">
      <span aria-hidden className={`h-[4px] w-[44px] shrink-0 bg-gauge ${colour}`}>
        <span
          className="block h-full bg-current"
          style={{ width: share > 0 ? Math.max(2, 44 * share) : 0 }}
        />
      </span>
      {proof.weight}
    </span>
  );
}
