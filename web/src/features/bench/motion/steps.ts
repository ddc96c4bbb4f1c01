import type { PartMotion } from "../../../api/motionQueries";

export type Step = NonNullable<PartMotion["come"]>;

const SHORTEST_S = 0.1;
const SNAP_S = 0.06;
const hundredth = (seconds: number) => Math.round(seconds * 100) / 100;
const within = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));

/** The room of a step: from the end of the one before to the beginning of the one after, in seconds. */
function room(motion: PartMotion, name: "come" | "go", period: number): [number, number] {
  if (name === "come") return [0, motion.go ? motion.go.start : period];
  return [motion.come ? motion.come.start + motion.come.length : 0, period];
}

/** A moment that somebody drags to: where another step begins or ends when that is near, else a tenth of a second. */
export function snapped(seconds: number, others: number[]): number {
  const near = others.find((one) => Math.abs(one - seconds) <= SNAP_S);
  return near ?? Math.round(seconds * 10) / 10;
}

/** The moments at which steps begin and end, without those of one step. */
export function edgesOf(motions: PartMotion[], without: Step): number[] {
  const steps = motions.flatMap((motion) => [motion.come, motion.go]);
  return steps.flatMap((step) => (step && step !== without ? [step.start, step.start + step.length] : []));
}

/** A step begun earlier or later, to hundredths of a second. */
export function shifted(motion: PartMotion, name: "come" | "go", by: number, period: number): PartMotion {
  const step = motion[name];
  if (!step) return motion;
  const [least, most] = room(motion, name, period);
  const start = within(hundredth(step.start + by), least, Math.max(least, most - step.length));
  return { ...motion, [name]: { ...step, start } };
}

/** A step made shorter or longer, to hundredths of a second. */
export function stretched(motion: PartMotion, name: "come" | "go", by: number, period: number): PartMotion {
  const step = motion[name];
  if (!step) return motion;
  const [, most] = room(motion, name, period);
  const length = within(hundredth(step.length + by), SHORTEST_S, Math.max(SHORTEST_S, most - step.start));
  return { ...motion, [name]: { ...step, length } };
}
