import { wordsForBytes, wordsForGauge } from "../measure/words";

/** Bytes against their limit as a thin gauge with its figures. */
export function Gauge({
  bytes,
  limit,
  colour,
}: {
  bytes: number | null;
  limit: number | null;
  colour: string;
}) {
  const share = bytes === null || !limit ? 0 : Math.min(1, bytes / limit);
  return (
    <span className="figure flex items-center gap-2 whitespace-nowrap text-soft">
      <span aria-hidden className={`h-[4px] w-[44px] shrink-0 bg-gauge ${colour}`}>
        <span
          className="block h-full bg-current"
          style={{ width: share > 0 ? Math.max(2, 44 * share) : 0 }}
        />
      </span>
      {gaugeWords(bytes, limit)}
    </span>
  );
}

function gaugeWords(bytes: number | null, limit: number | null): string {
  if (bytes === null) return limit ? `up to ${wordsForBytes(limit)}` : "any weight";
  return limit ? wordsForGauge(bytes, limit) : wordsForBytes(bytes);
}
