import { Percent } from "../../../ui/fields";
import { Another, Fields, Remove, Words, withEntry } from "./parts";
import type { Draft, Patch, Sheet } from "./useDraft";

export type ZoneKind = "covered" | "windows";
export type Zone = Record<"x" | "y" | "width" | "height", number> & { name: string };

const NEW: Record<ZoneKind, Omit<Zone, "name"> & { words: string; add: string }> = {
  covered: { x: 0.7, y: 0.8, width: 0.3, height: 0.2, words: "Covered zone", add: "Another zone" },
  windows: { x: 0.1, y: 0.1, width: 0.8, height: 0.8, words: "Window", add: "Another window" },
};

/** Zones and windows alike: a rectangle in fractions, and what it is called. */
export const zonesOf = (sheet: Sheet, kind: ZoneKind): Zone[] =>
  kind === "windows"
    ? (sheet.windows ?? []).map((one) => ({ ...one }))
    : (sheet.covered ?? []).map(({ label, ...box }) => ({ ...box, name: label }));

export const patchOf = (kind: ZoneKind, zones: Zone[]): Patch =>
  kind === "windows"
    ? { windows: zones }
    : { covered: zones.map(({ name, ...box }) => ({ ...box, label: name })) };

/** A new zone with a name that none has, in a box of its own or a usual one. */
export function anotherZone(sheet: Sheet, kind: ZoneKind, box?: Omit<Zone, "name">): Patch {
  const zones = zonesOf(sheet, kind);
  const { words, x, y, width, height } = NEW[kind];
  let number = zones.length + 1;
  while (zones.some((one) => one.name === `${words} ${number}`)) number += 1;
  return patchOf(kind, [...zones, { ...(box ?? { x, y, width, height }), name: `${words} ${number}` }]);
}

export function ZoneFields({ draft, of }: { draft: Draft; of: ZoneKind }) {
  const zones = zonesOf(draft.sheet, of);
  const set = (at: number, next: Zone | null) => draft.set(patchOf(of, withEntry(zones, at, next)));
  return (
    <>
      {zones.map((zone, at) => (
        <Fields key={at}>
          <Words
            label={`What zone ${at + 1} is called`}
            value={zone.name}
            change={(name) => set(at, { ...zone, name })}
          />
          {(
            [
              ["x", "left"],
              ["y", "top"],
              ["width", "wide"],
              ["height", "high"],
            ] as const
          ).map(([side, words]) => (
            <Percent
              key={side}
              label={`${zone.name}, ${words}`}
              words={words}
              value={zone[side]}
              change={(value) => set(at, { ...zone, [side]: value })}
            />
          ))}
          <Remove words={`Without ${zone.name}`} press={() => set(at, null)} />
        </Fields>
      ))}
      <Another words={NEW[of].add} press={() => draft.set(anotherZone(draft.sheet, of))} />
      {of === "covered" && <p className="text-[12px] text-soft">Or draw it on the drawing.</p>}
    </>
  );
}
