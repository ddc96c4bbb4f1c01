import type { Schemas, StepOf } from "../../../api/client";
import type { Preparing } from "../usePreparation";

interface Props {
  preparing: Preparing;
  step: StepOf<"red eyes">;
  size: Schemas["SizeOut"];
  scale: number;
}

const USUAL_RADIUS = 0.02;

/** A circle on each eye; a click elsewhere adds one. */
export function Eyes({ preparing, step, size, scale }: Props) {
  const short = Math.min(size.width, size.height) * scale;
  const [across, down] = [size.width * scale, size.height * scale];
  const resize = (index: number, by: number) =>
    preparing.change("size of an eye", {
      ...step,
      eyes: step.eyes.map((eye, number) =>
        number === index ? { ...eye, radius: Math.min(0.25, Math.max(0.003, eye.radius * by)) } : eye,
      ),
    });
  return (
    <div
      className="absolute inset-0 cursor-crosshair"
      onClick={(event) => {
        const frame = event.currentTarget.getBoundingClientRect();
        const eye = {
          x: (event.clientX - frame.left) / frame.width,
          y: (event.clientY - frame.top) / frame.height,
          radius: step.eyes.at(-1)?.radius ?? USUAL_RADIUS,
        };
        preparing.change("add an eye", { ...step, eyes: [...step.eyes, eye] });
      }}
    >
      {step.eyes.map((eye, index) => (
        <button
          key={index}
          type="button"
          aria-label={`Eye ${index + 1}. Plus and minus make its circle larger and smaller.`}
          onClick={(event) => event.stopPropagation()}
          onWheel={(event) => resize(index, event.deltaY < 0 ? 1.15 : 1 / 1.15)}
          onKeyDown={(event) => {
            if (event.key === "+" || event.key === "=") resize(index, 1.15);
            if (event.key === "-") resize(index, 1 / 1.15);
          }}
          className="absolute -translate-1/2 rounded-full border-2 border-measure"
          style={{
            left: eye.x * across,
            top: eye.y * down,
            width: Math.max(10, 2 * eye.radius * short),
            height: Math.max(10, 2 * eye.radius * short),
          }}
        />
      ))}
    </div>
  );
}
