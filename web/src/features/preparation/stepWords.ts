import type { Schemas, Step } from "../../api/client";
import { plural } from "../../measure/words";

export const STEP_NAMES: Record<Step["kind"], string> = {
  turn: "Turn",
  mirror: "Mirror",
  straighten: "Straighten",
  crop: "Crop",
  trim: "Trim margins",
  adjust: "Light and colour",
  "red eyes": "Red eyes",
  "cut out": "Cut out",
  "clean edge": "Clean the edge",
  recolour: "Recolour",
  trace: "Outlines from pixels",
};

const ENGINES: Record<string, string> = {
  flat: "from its flat backdrop",
  person: "a person",
  object: "the subject you marked",
};

/** What a step did, in a few words; figures are the server's. */
export function stepResult(step: Step, out: Schemas["StepOut"] | undefined): string {
  if (!step.on) return "switched off";
  if (!out) return "";
  if (out.waiting) return "working…";
  const size = `${Math.round(out.size.width)} × ${Math.round(out.size.height)} px`;
  switch (step.kind) {
    case "cut out":
      return out.engine ? `${ENGINES[out.engine]}, ${Math.round((out.confidence ?? 0) * 100)} % sure` : "";
    case "adjust":
      return adjustWords(step);
    case "recolour":
      if (step.one) return `all in ${step.one}`;
      return step.colours.length > 0
        ? plural(step.colours.length, "colour", "colours")
        : "nothing changed yet";
    case "red eyes":
      return plural(step.eyes.length, "eye", "eyes");
    case "turn":
      return `${step.quarters * 90}° clockwise, ${size}`;
    case "straighten":
      return `by ${step.degrees}°, ${size}`;
    case "mirror":
      return step.across;
    case "trace":
      return out.colours.length > 0
        ? `${plural(out.colours.length, "colour", "colours")}, vector, ${size}`
        : size;
    default:
      return size;
  }
}

export const ADJUSTMENTS = [
  "brightness",
  "contrast",
  "shadows",
  "highlights",
  "warmth",
  "saturation",
  "sharpen",
] as const;

function adjustWords(step: Extract<Step, { kind: "adjust" }>): string {
  const said = ADJUSTMENTS.filter((name) => step[name]).map((name) => `${name} ${signed(step[name])}`);
  return said.join(", ") || "nothing yet";
}

export const signed = (value: number) => {
  const percent = Math.round(value * 100);
  return percent > 0 ? `+${percent}` : String(percent);
};
