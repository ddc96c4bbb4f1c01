import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";

import type { PreparationOut, Step } from "../../api/client";
import { useLimits } from "../../ui/useLimits";
import type { Preparing } from "./usePreparation";
import type { Tools } from "./useTools";

interface Way {
  words: string;
  title: string;
  go: (preparing: Preparing) => void;
}

const adding = (words: string, title: string, kind: Step["kind"]): Way => ({
  words,
  title,
  go: (preparing) => preparing.add(kind),
});

const SHAPE: Way[] = [
  adding("Crop", "Keep a part, in any shape or that of a place", "crop"),
  {
    words: "Crop to the subject",
    title: "Around the faces, or what stands on a flat or clear ground",
    go: (preparing) => preparing.propose("subject"),
  },
  adding("Trim margins", "Take clear or flat margins away", "trim"),
  adding("Turn", "By quarter turns", "turn"),
  adding("Mirror", "Left and right, or top and bottom", "mirror"),
  adding("Straighten", "By a line that should be level or upright", "straighten"),
];

const LIGHT: Way[] = [
  {
    words: "Improve it",
    title: "Measures light and colour, and says by which figures it changed them",
    go: (preparing) => preparing.propose("improve"),
  },
  adding("Light and colour", "By hand", "adjust"),
  {
    words: "Red eyes",
    title: "Finds red pupils and darkens them",
    go: (preparing) => preparing.propose("red-eyes"),
  },
];

const GROUND: Way[] = [
  adding("Cut out", "Make what lies behind the subject clear", "cut out"),
  adding("Clean the edge", "Take off the fringe that an earlier background left", "clean edge"),
];

const COLOUR: Way[] = [
  adding("Recolour", "All in one colour, or colour by colour", "recolour"),
  {
    words: "For dark grounds",
    title: "Proposes lighter colours until each stands out at 3 : 1",
    go: (preparing) => preparing.propose("dark-version"),
  },
  adding("Outlines from pixels", "Trace flat colours, so that it stays crisp when enlarged", "trace"),
];

const GROUPS: [string, Way[]][] = [
  ["Shape", SHAPE],
  ["Light", LIGHT],
  ["Ground", GROUND],
  ["Colour", COLOUR],
];

const OFFERED: Record<string, Way | undefined> = {
  trace: COLOUR.at(-1),
};

/** Adds the step that a finding offered, once, unless there is one of its kind already; shows it beside the original. */
export function useOfferedStep(preparing: Preparing, tools: Tools) {
  const [search, setSearch] = useSearchParams();
  const offer = search.get("offer");
  const done = useRef(false);
  const { data } = preparing;
  useEffect(() => {
    if (!offer || !data || done.current) return;
    done.current = true;
    setSearch({}, { replace: true });
    const there = data.document.steps.find((step) => step.kind === offer);
    if (there) preparing.choose(there.id);
    else OFFERED[offer]?.go(preparing);
    tools.setView("both");
  }, [offer, data, preparing, tools, setSearch]);
}

/** Every step that can be added, by what it is for. */
export function AddStep({ preparing, data }: { preparing: Preparing; data: PreparationOut }) {
  const full = data.document.steps.length >= useLimits().steps;
  return (
    <section aria-label="Add a step" className="mt-4 text-[13px]">
      {GROUPS.map(([name, ways]) => (
        <div key={name} className="grid grid-cols-[62px_1fr] border-b border-hairline py-1">
          <span className="pt-1 text-soft">{name}</span>
          <div className="flex flex-wrap gap-x-4">
            {ways.map((way) => (
              <button
                key={way.words}
                type="button"
                title={way.title}
                disabled={full || preparing.proposing}
                onClick={() => way.go(preparing)}
                className="min-h-7 font-semibold text-measure hover:underline disabled:opacity-50"
              >
                {way.words}
              </button>
            ))}
          </div>
        </div>
      ))}
      {preparing.proposing && <p className="pt-2 text-soft">Looking at the picture…</p>}
    </section>
  );
}
