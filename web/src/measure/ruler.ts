const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 250, 500, 1000, 2000, 5000];
const LEAST_GAP = 48; // px on the screen between two figures

export interface Tick {
  at: number; // px of the file
  major: boolean;
}

/** Ticks of a ruler of `length` px of the file drawn at `scale` screen px each. */
export function ticks(length: number, scale: number): Tick[] {
  const step = STEPS.find((entry) => entry * scale >= LEAST_GAP) ?? STEPS[STEPS.length - 1]!;
  const found: Tick[] = [];
  const minor = step / (step % 5 === 0 ? 5 : step % 2 === 0 ? 2 : 1);
  for (let at = 0; at <= length + 1e-6; at += minor) {
    found.push({ at, major: Math.abs(at / step - Math.round(at / step)) < 1e-6 });
  }
  return found;
}
