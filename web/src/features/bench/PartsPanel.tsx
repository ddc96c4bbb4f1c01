import type { FitOut, PartOut, Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { ColourField } from "./ColourField";
import { PaddingField } from "./PaddingField";
import type { Bench } from "./useBench";

type ArtworkPart = Schemas["ArtworkPart"];

/** The parts, front to back; each row's values change the fit at once. */
export function PartsPanel({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const document = fit.piece.document.parts;
  return (
    <section aria-labelledby="parts">
      <h2 id="parts" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Parts, front to back
      </h2>
      {[...fit.parts].reverse().map((placed) => {
        const part = document.find((entry) => entry.id === placed.part) as ArtworkPart;
        return <ArtworkRow key={part.id} bench={bench} fit={fit} placed={placed} part={part} />;
      })}
      <GroundRow bench={bench} fit={fit} />
      <Scope bench={bench} fit={fit} />
    </section>
  );
}

interface RowProps {
  bench: Bench;
  fit: FitOut;
  placed: PartOut;
  part: ArtworkPart;
}

/** The value of a field as it is in this placement. */
function there<T>(fit: FitOut, part: string, field: string, usual: T): T {
  const own = fit.piece.document.adjustments?.[fit.placement]?.[part];
  return own && field in own ? (own[field] as T) : usual;
}

function ArtworkRow({ bench, fit, placed, part }: RowProps) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const value = <K extends "padding" | "centring" | "tint">(field: K) =>
    there(fit, part.id, field, part[field]);
  return (
    <div className="border-b border-hairline border-l-2 border-l-measure py-3 pl-3">
      <p className="truncate font-semibold" title={placed.name}>
        {placed.name}
      </p>
      <p className="text-[12px] text-soft">{part.role}</p>
      <Choice
        label="Shown"
        options={[
          ["fill", "filling"],
          ["whole", "whole"],
        ]}
        value={placed.mode}
        choose={(mode) => set(mode === "fill" ? "fill the place" : "show it whole", "mode", mode)}
      />
      {placed.mode === "whole" && (
        <>
          <PaddingField
            padding={value("padding") ?? null}
            chosenPx={placed.padding_px}
            change={(padding) => set("change the padding", "padding", padding)}
          />
          <Choice
            label="Centred"
            options={[
              ["box", "by its box"],
              ["weight", "by weight"],
            ]}
            value={value("centring") ?? "box"}
            choose={(centring) => set("change the centring", "centring", centring)}
          />
          <Line term="Clearance">
            <span className="figure text-measure">{placed.clearance_px} px</span>
          </Line>
        </>
      )}
      {(placed.one_colour || value("tint")) && (
        <ColourField
          label="Tint"
          none="as it is"
          value={value("tint") ?? null}
          suggested={fit.house}
          change={(tint) => set(tint ? "tint the mark" : "take the tint away", "tint", tint)}
        />
      )}
    </div>
  );
}

function GroundRow({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const ground = fit.piece.document.parts.find((entry) => entry.role === "ground");
  if (!ground) return null;
  const value = there<string | null>(
    fit,
    ground.id,
    "colour",
    (ground as Schemas["GroundPart"]).colour ?? null,
  );
  return (
    <div className="border-b border-hairline py-3 pl-3.5">
      <p className="font-semibold">Ground</p>
      <p className="text-[12px] text-soft">
        {fit.ground_given ? `${fit.ground}, given because none is transparent here` : (value ?? "clear")}
      </p>
      <ColourField
        label="Colour"
        none={fit.ground_given ? "chosen for it" : "clear"}
        value={value}
        suggested={[...fit.house, ...fit.sheet.grounds]}
        change={(colour) =>
          bench.change(colour ? "change the ground" : "clear the ground", [
            { part: ground.id, field: "colour", value: colour },
          ])
        }
      />
    </div>
  );
}

function Scope({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const count = fit.adjusted.length;
  return (
    <div className="pt-3 pl-3.5">
      <Choice
        label="Changes"
        options={[
          ["here", "only here"],
          ["everywhere", "everywhere"],
        ]}
        value={bench.everywhere ? "everywhere" : "here"}
        choose={(scope) => bench.setEverywhere(scope === "everywhere")}
      />
      {count > 0 && (
        <p className="mt-2 text-[12px] text-soft">
          <span className="text-measure">
            {count} {count === 1 ? "adjustment" : "adjustments"} only here.
          </span>{" "}
          <Button look="bare" className="min-h-6 text-[12px]" onClick={() => bench.takeBack(fit.adjusted)}>
            Take back
          </Button>
        </p>
      )}
    </div>
  );
}

export function Line({ term, children }: { term: string; children: React.ReactNode }) {
  return (
    <div className="mt-2 grid grid-cols-[68px_1fr] items-baseline gap-2 text-[13px]">
      <span className="text-soft">{term}</span>
      <div>{children}</div>
    </div>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  options: [T, string][];
  value: T;
  choose: (value: T) => void;
}

function Choice<T extends string>({ label, options, value, choose }: ChoiceProps<T>) {
  return (
    <Line term={label}>
      <div role="group" aria-label={label} className="flex gap-3">
        {options.map(([key, words]) => (
          <button
            key={key}
            type="button"
            aria-pressed={key === value}
            onClick={() => key !== value && choose(key)}
            className={`min-h-6 border-b-2 ${key === value ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
          >
            {words}
          </button>
        ))}
      </div>
    </Line>
  );
}
