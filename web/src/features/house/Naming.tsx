import type { House } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

/** How delivered files are called where a place has no rule of its own. */
export function Naming({ house }: { house: House }) {
  const { naming, example, tokens } = house.style;
  return (
    <Section title="How files are named">
      <input
        aria-label="Naming rule"
        key={naming}
        defaultValue={naming}
        placeholder="{subject}_{width}x{height}"
        onBlur={(event) =>
          event.target.value !== naming && house.change({ naming: event.target.value.trim() })
        }
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        className="figure mt-2 min-h-8 w-full border-b border-ink bg-transparent text-[13px]! placeholder:text-soft"
      />
      <p className="mt-1.5 text-[13px] text-soft">
        For example <span className="figure text-ink">{example}</span>. It may have{" "}
        <span className="figure">{tokens.join(" ")}</span>. A place with a rule of its own keeps that.
      </p>
    </Section>
  );
}
