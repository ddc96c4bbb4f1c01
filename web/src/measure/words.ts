/** A count of bytes the way a person writes it (decimal, as destinations state their limits). */
export function wordsForBytes(count: number): string {
  if (count < 1000) return `${count} bytes`;
  const kilobytes = count / 1000;
  if (kilobytes < 1000) return `${kilobytes < 10 ? kilobytes.toFixed(1) : kilobytes.toFixed(0)} KB`;
  return `${(kilobytes / 1000).toFixed(1)} MB`;
}

/** Bytes beside their limit: `246 of 300 KB`. */
export function wordsForGauge(bytes: number, limit: number): string {
  const [count, unit] = wordsForBytes(limit).split(" ");
  const divisor = unit === "MB" ? 1_000_000 : unit === "KB" ? 1000 : 1;
  const value = bytes / divisor;
  const shown = divisor === 1 || value >= 10 ? value.toFixed(0) : value.toFixed(1);
  return `${shown} of ${count} ${unit}`;
}

export function plural(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`;
}
