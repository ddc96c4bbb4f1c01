import type { Schemas } from "../../../api/client";
import type { Bench } from "../useBench";
import { ColourChoice } from "./ColourField";
import { Choice, Optional, Percent, Select } from "../../../ui/fields";

type Words = Schemas["WordsPart"];
type Name = "outline" | "glow" | "shadow" | "plate";

const ROUNDED = "round corners";

/** What stands around letters; all lengths in percent of the letter height. */
export function Effects({ bench, part }: { bench: Bench; part: Words }) {
  const save = (name: Name, value: unknown) =>
    bench.change(`change the ${name}`, [{ part: part.id, field: name, value }]);
  const turn = (name: Name) => (on: boolean) =>
    bench.change(on ? `add ${name === "outline" ? "an" : "a"} ${name}` : `take the ${name} away`, [
      { part: part.id, field: name, value: on ? bench.fit!.first_looks[name] : null },
    ]);
  const { outline, glow, shadow, plate } = part;
  const percent = <T extends object>(name: Name, effect: T, field: keyof T & string, words: string) => (
    <Percent
      key={field}
      words={words}
      label={`${words} of the ${name}`}
      value={Number(effect[field] ?? 0)}
      of={[name, field]}
      change={(value) => save(name, { ...effect, [field]: value })}
    />
  );
  const colour = <T extends { colour?: string }>(name: Name, effect: T) => (
    <ColourChoice
      bench={bench}
      label={name}
      value={effect.colour ?? null}
      change={(next) => next && save(name, { ...effect, colour: next })}
    />
  );
  return (
    <>
      <Choice
        label="Drawn"
        options={[
          ["full", "full"],
          ["outline", "outline only"],
        ]}
        value={part.outline_only ? "outline" : "full"}
        choose={(value) =>
          bench.change("change the letters", [
            { part: part.id, field: "outline_only", value: value === "outline" },
          ])
        }
      />
      <Optional label="Outline" on={outline != null} turn={turn("outline")}>
        {outline && [
          percent("outline", outline, "width", "width"),
          percent("outline", outline, "offset", "gap"),
        ]}
        {outline && colour("outline", outline)}
      </Optional>
      <Optional label="Glow" on={glow != null} turn={turn("glow")}>
        {glow && [percent("glow", glow, "radius", "reach"), percent("glow", glow, "strength", "strength")]}
        {glow && colour("glow", glow)}
      </Optional>
      <Optional label="Shadow" on={shadow != null} turn={turn("shadow")}>
        {shadow && [
          percent("shadow", shadow, "dx", "across"),
          percent("shadow", shadow, "dy", "down"),
          percent("shadow", shadow, "softness", "softness"),
          percent("shadow", shadow, "opacity", "opacity"),
        ]}
        {shadow && colour("shadow", shadow)}
      </Optional>
      <Optional label="Plate" on={plate != null} turn={turn("plate")}>
        {plate && (
          <Select
            label="Shape of the plate"
            options={[ROUNDED, ...bench.fit!.shapes]}
            value={plate.shape ?? ROUNDED}
            choose={(shape) => save("plate", { ...plate, shape: shape === ROUNDED ? null : shape })}
          />
        )}
        {plate && [
          percent("plate", plate, "padding", "padding"),
          percent("plate", plate, "corner", "corner"),
          percent("plate", plate, "opacity", "opacity"),
        ]}
        {plate && colour("plate", plate)}
      </Optional>
    </>
  );
}
