import { useEffect, useRef, useState } from "react";

const FIRST_TOGETHER = 1; // the first is there soonest alone
const TOGETHER = 8;
const TRIES = 4;
const PAUSE_MS = 1200;

/** One frame of a loop: a part of a picture of several, one below the other. */
export interface Frame {
  strip: ImageBitmap;
  top: number;
  height: number;
}

/** The frames of a loop in their order, as they come; `lost` where they do not. */
export function useFrames(urlOf: (first: number, count: number) => string, total: number) {
  const frames = useRef<Frame[]>([]);
  const [lost, setLost] = useState(false);
  const address = urlOf(0, total);
  const latest = useRef(urlOf);
  useEffect(() => {
    latest.current = urlOf;
  });
  useEffect(() => {
    const stop = new AbortController();
    const strips: ImageBitmap[] = [];
    frames.current = [];
    const bring = async () => {
      for (let first = 0; first < total;) {
        const count = Math.min(first === 0 ? FIRST_TOGETHER : TOGETHER, total - first);
        const strip = await stripAt(latest.current(first, count), stop.signal);
        if (stop.signal.aborted) return strip.close();
        strips.push(strip);
        const height = strip.height / count;
        for (let row = 0; row < count; row++) frames.current.push({ strip, top: row * height, height });
        first += count;
      }
    };
    bring().then(
      () => setLost(false),
      () => setLost(!stop.signal.aborted),
    );
    return () => {
      stop.abort();
      frames.current = [];
      for (const strip of strips) strip.close();
    };
  }, [address, total]);
  return { frames, lost };
}

/** A picture of several frames; asked for again where many are drawn for at the moment. */
async function stripAt(url: string, signal: AbortSignal): Promise<ImageBitmap> {
  for (let tried = 1; ; tried++) {
    const answer = await fetch(url, { signal });
    if (answer.ok) return createImageBitmap(await answer.blob());
    if (tried === TRIES) throw new Error(`${answer.status}`);
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}
