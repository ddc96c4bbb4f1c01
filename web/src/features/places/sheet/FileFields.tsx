import { useState } from "react";

import { Choice, Select } from "../../../ui/fields";
import { Fields, MaybeFigure, Words } from "./parts";
import type { Draft } from "./useDraft";

const UNITS = { KB: 1000, MB: 1_000_000 };
type Unit = keyof typeof UNITS;

export function WeightFields({ draft }: { draft: Draft }) {
  const limit = draft.sheet.max_bytes ?? null;
  const [unit, setUnit] = useState<Unit>(limit && limit >= UNITS.MB ? "MB" : "KB");
  return (
    <Fields>
      <MaybeFigure
        label="At most"
        words="at most"
        whole={false}
        value={limit === null ? null : limit / UNITS[unit]}
        change={(value) => draft.set({ max_bytes: value === null ? null : Math.round(value * UNITS[unit]) })}
      />
      <Select
        label="Unit"
        options={Object.keys(UNITS)}
        value={unit}
        choose={(next) => {
          setUnit(next as Unit);
          if (limit !== null) draft.set({ max_bytes: (limit / UNITS[unit]) * UNITS[next as Unit] });
        }}
      />
    </Fields>
  );
}

export function TransparencyFields({ draft }: { draft: Draft }) {
  return (
    <Choice
      label="Around it"
      options={[
        ["allowed", "may be transparent"],
        ["required", "have to be"],
        ["forbidden", "may not be"],
      ]}
      value={draft.sheet.transparency ?? "allowed"}
      choose={(transparency) => draft.set({ transparency })}
    />
  );
}

export function MotionFields({ draft }: { draft: Draft }) {
  const motion = draft.sheet.motion ?? { allowed: false, required: false };
  const kind = motion.required ? "must" : motion.allowed ? "may" : "still";
  const set = (next: Partial<typeof motion>) => draft.set({ motion: { ...motion, ...next } });
  return (
    <>
      <Choice
        label="It"
        options={[
          ["still", "stands still"],
          ["may", "may move"],
          ["must", "has to move"],
        ]}
        value={kind}
        choose={(next) => set({ allowed: next !== "still", required: next === "must" })}
      />
      {kind !== "still" && (
        <>
          <Fields>
            <MaybeFigure
              label="Seconds"
              words="at most"
              unit="s"
              whole={false}
              value={motion.max_seconds}
              change={(max_seconds) => set({ max_seconds })}
            />
            <MaybeFigure
              label="Frames a second"
              unit="frames a second"
              whole={false}
              value={motion.max_fps}
              change={(max_fps) => set({ max_fps })}
            />
          </Fields>
          <Choice
            label="Plays"
            options={[
              ["any", "as it likes"],
              ["again", "again and again"],
              ["once", "once"],
            ]}
            value={motion.loop === true ? "again" : motion.loop === false ? "once" : "any"}
            choose={(next) => set({ loop: next === "any" ? null : next === "again" })}
          />
        </>
      )}
    </>
  );
}

export function CapacityFields({ draft }: { draft: Draft }) {
  return (
    <MaybeFigure
      label="Files"
      words="takes"
      unit="files"
      value={draft.sheet.capacity}
      change={(capacity) => draft.set({ capacity })}
    />
  );
}

export function NamingFields({ draft }: { draft: Draft }) {
  return (
    <>
      <Words
        label="File name"
        wide="w-full"
        value={draft.sheet.naming ?? ""}
        change={(naming) => draft.set({ naming })}
      />
      <p className="figure text-soft">
        {"{subject} {placement} {width} {height} {size} {date} {version}"} stand for what they say.
      </p>
    </>
  );
}
