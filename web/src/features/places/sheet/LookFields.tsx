import { useState } from "react";

import { Choice, Figure, Percent } from "../../../ui/fields";
import { Swatches } from "../../../ui/Swatches";
import { Another, Fields, MaybeFigure, Remove, Words, withEntry } from "./parts";
import { PickFromPicture } from "./PickFromPicture";
import type { Draft } from "./useDraft";

export function CutFields({ draft }: { draft: Draft }) {
  const cut = draft.sheet.mask ?? null;
  return (
    <>
      <Choice
        label="Shown"
        options={[
          ["none", "whole"],
          ["circle", "in a circle"],
          ["rounded", "with round corners"],
        ]}
        value={cut?.shape ?? "none"}
        choose={(shape) =>
          draft.set({
            mask: shape === "none" ? null : shape === "circle" ? { shape } : { shape, radius: 0.2 },
          })
        }
      />
      {cut?.shape === "rounded" && (
        <Percent
          label="Radius of the corners"
          words="radius, of the short side"
          value={cut.radius}
          change={(radius) => draft.set({ mask: { ...cut, radius } })}
        />
      )}
    </>
  );
}

export function VeilFields({ draft }: { draft: Draft }) {
  const veil = draft.sheet.veil ?? null;
  return (
    <>
      <Choice
        label="Over it"
        options={[
          ["none", "nothing"],
          ["veil", "a colour"],
        ]}
        value={veil ? "veil" : "none"}
        choose={(kind) => draft.set({ veil: kind === "none" ? null : { colour: "#000000", opacity: 0.4 } })}
      />
      {veil && (
        <Fields>
          <Swatches
            label="Colour of the veil"
            colours={[]}
            value={veil.colour}
            change={(colour) => colour && draft.set({ veil: { ...veil, colour } })}
          />
          <Percent
            label="Strength of the veil"
            words="as strong as"
            value={veil.opacity}
            change={(opacity) => draft.set({ veil: { ...veil, opacity } })}
          />
        </Fields>
      )}
    </>
  );
}

export function SeenFields({ draft }: { draft: Draft }) {
  const all = draft.sheet.seen ?? [];
  const set = (at: number, next: (typeof all)[number] | null) =>
    draft.set({ seen: withEntry(all, at, next) });
  return (
    <>
      {all.map((one, at) => (
        <Fields key={at}>
          <Words
            label={`Where size ${at + 1} is seen`}
            value={one.name}
            change={(name) => set(at, { ...one, name })}
          />
          <MaybeFigure
            label={`Width of ${one.name}`}
            unit="px wide"
            value={one.width}
            change={(width) => width && set(at, { ...one, width })}
          />
          <span className="text-[13px]">
            <span className="text-soft">on a screen of density </span>
            <Figure
              label={`Density of ${one.name}`}
              value={one.density ?? 1}
              step={0.5}
              least={0.5}
              most={5}
              change={(density) => set(at, { ...one, density })}
            />
          </span>
          <Remove words={`Without ${one.name}`} press={() => set(at, null)} />
        </Fields>
      ))}
      <Another
        words="Another size"
        press={() => {
          const width = Math.max(1, Math.round(draft.shown.size.width / 2));
          draft.set({ seen: [...all, { name: `at ${width} px`, width, density: 1 }] });
        }}
      />
    </>
  );
}

/** The colours it stands on: typed, chosen, or picked from a picture of the page. */
export function GroundFields({ draft }: { draft: Draft }) {
  const all = draft.sheet.grounds ?? [];
  const [picking, setPicking] = useState(false);
  const add = (colour: string) => !all.includes(colour) && draft.set({ grounds: [...all, colour] });
  return (
    <>
      {all.map((colour, at) => (
        <div key={at} className="flex items-center gap-2">
          <Swatches
            label={`Ground ${at + 1}`}
            colours={[]}
            value={colour}
            change={(next) => next && draft.set({ grounds: withEntry(all, at, next) })}
          />
          {all.length > 1 && (
            <Remove
              words={`Without ${colour}`}
              press={() => draft.set({ grounds: withEntry(all, at, null) })}
            />
          )}
        </div>
      ))}
      <div className="flex flex-wrap gap-x-4">
        <Another words="Another ground" press={() => add(all.includes("#17181a") ? "#808080" : "#17181a")} />
        <button
          type="button"
          aria-expanded={picking}
          onClick={() => setPicking(!picking)}
          className="min-h-6 text-[13px] text-measure hover:underline"
        >
          Pick one from a screenshot
        </button>
      </div>
      {picking && <PickFromPicture pick={add} />}
    </>
  );
}
