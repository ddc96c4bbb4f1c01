import { ArrowDown, ArrowUp, Copy, X } from "lucide-react";
import { useState } from "react";

import { Hex } from "../../ui/Hex";
import { Swatches } from "../../ui/Swatches";
import type { House, HouseColour } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

/** The colours, named and in order: the first ones are offered first. */
export function Colours({ house }: { house: House }) {
  const { colours } = house.style;
  const set = (index: number, colour: HouseColour | null) =>
    house.change({
      colours: colours.flatMap((one, at) => (at === index ? (colour ? [colour] : []) : [one])),
    });
  const move = (index: number, by: 1 | -1) => {
    const order = [...colours];
    const [one] = order.splice(index, 1);
    order.splice(index + by, 0, one!);
    house.change({ colours: order });
  };
  return (
    <Section title="Colours, in the order in which they are offered">
      <ul>
        {colours.map((colour, index) => (
          <Row
            key={`${index} ${colour.hex}`}
            colour={colour}
            change={(next) => set(index, next)}
            up={index > 0 ? () => move(index, -1) : undefined}
            down={index < colours.length - 1 ? () => move(index, 1) : undefined}
          />
        ))}
      </ul>
      <div className="mt-2 flex items-center gap-3 text-[13px]">
        <span className="text-soft">Another</span>
        <Swatches label="Another colour" colours={[]} value={null} change={(hex) => hex && house.add(hex)} />
      </div>
    </Section>
  );
}

interface RowProps {
  colour: HouseColour;
  change: (colour: HouseColour | null) => void;
  up?: () => void;
  down?: () => void;
}

function Row({ colour, change, up, down }: RowProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const name = colour.name || colour.hex;
  return (
    <li className="flex items-center gap-3 border-b border-hairline py-1.5 text-[13px]">
      <span className="size-8 shrink-0 border border-hairline" style={{ background: colour.hex }} />
      <input
        aria-label={`Name of ${colour.hex}`}
        defaultValue={colour.name}
        placeholder="Name it"
        maxLength={60}
        onBlur={(event) =>
          event.target.value.trim() !== colour.name && change({ ...colour, name: event.target.value.trim() })
        }
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        className="min-h-6 w-40 min-w-0 border-b border-transparent bg-transparent font-semibold placeholder:font-normal placeholder:text-soft hover:border-hairline focus:border-ink"
      />
      <Hex
        label={name}
        value={colour.hex}
        typed={typed}
        setTyped={setTyped}
        change={(hex) => change({ ...colour, hex })}
      />
      <span className="ml-auto flex">
        <Small words={`Copy ${colour.hex}`} press={() => void navigator.clipboard.writeText(colour.hex)}>
          <Copy aria-hidden size={13} />
        </Small>
        <Small words={`Offer ${name} earlier`} press={up}>
          <ArrowUp aria-hidden size={14} />
        </Small>
        <Small words={`Offer ${name} later`} press={down}>
          <ArrowDown aria-hidden size={14} />
        </Small>
        <Small words={`Remove ${name}`} press={() => change(null)}>
          <X aria-hidden size={14} />
        </Small>
      </span>
    </li>
  );
}

function Small({ words, press, children }: { words: string; press?: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={words}
      title={words}
      disabled={!press}
      onClick={press}
      className="flex size-6 items-center justify-center text-soft hover:text-ink disabled:opacity-30"
    >
      {children}
    </button>
  );
}
