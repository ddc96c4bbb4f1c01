import { useEffect, useRef, type CSSProperties } from "react";

import { useFrames, type Frame } from "./useFrames";

interface Props {
  /** The address of so many frames from one on. */
  urlOf: (first: number, count: number) => string;
  total: number;
  /** Of the whole loop, in seconds. */
  period: number;
  alt: string;
  /** What is seen until the first frame is there. */
  still: string;
  className?: string;
  style?: CSSProperties;
}

/** A loop at its true speed; in its first round it waits for a frame that is not there yet. */
export function Playing({ urlOf, total, period, alt, still, className, style }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { frames, lost } = useFrames(urlOf, total);
  useEffect(() => {
    let turn = 0;
    let before = performance.now();
    let position = 0;
    const show = (now: number) => {
      const next = position + Math.max(0, now - before) / 1000;
      before = now;
      const number = Math.floor(((next % period) / period) * total);
      const frame = frames.current[number];
      if (frame) {
        position = next;
        if (canvas.current) draw(canvas.current, frame, number);
      }
      turn = requestAnimationFrame(show);
    };
    turn = requestAnimationFrame(show);
    return () => cancelAnimationFrame(turn);
  }, [frames, period, total]);
  return (
    <>
      <canvas
        ref={canvas}
        role="img"
        aria-label={alt}
        className={className}
        style={{ ...style, background: `url("${still}") 0 0 / 100% 100%` }}
      />
      {lost && (
        <p role="status" className="absolute inset-x-0 bottom-0 bg-paper p-2 text-[13px]">
          This cannot be played just now. Press Play again in a moment.
        </p>
      )}
    </>
  );
}

function draw(canvas: HTMLCanvasElement, { strip, top, height }: Frame, number: number) {
  if (canvas.dataset.frame === `${number}` && canvas.width === strip.width) return;
  if (canvas.width !== strip.width || canvas.height !== height) {
    canvas.width = strip.width;
    canvas.height = height;
  }
  canvas.style.background = "none";
  const context = canvas.getContext("2d")!;
  context.clearRect(0, 0, strip.width, height);
  context.drawImage(strip, 0, top, strip.width, height, 0, 0, strip.width, height);
  canvas.dataset.frame = `${number}`;
}
