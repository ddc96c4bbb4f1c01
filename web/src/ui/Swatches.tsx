import { useState } from "react";

import { AnyColour, NoColour, Swatch } from "./colours";
import { Hex } from "./Hex";

interface Props {
  label: string;
  colours: readonly string[];
  value: string | null;
  /** What no colour is called; without it there always is one. */
  none?: string;
  change: (colour: string | null) => void;
}

/** A colour: of a few that are at hand, or any by its hex code or from a palette. */
export function Swatches({ label, colours, value, none, change }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <span className="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span className="flex flex-wrap gap-0.5">
        {colours.map((colour) => (
          <Swatch
            key={colour}
            label={label}
            colour={colour}
            chosen={colour === value}
            choose={() => change(colour)}
          />
        ))}
      </span>
      <Hex label={label} value={value} typed={typed} setTyped={setTyped} change={change} />
      <AnyColour label={label} value={value} typed={typed} setTyped={setTyped} change={change} />
      {none && <NoColour words={none} chosen={value === null} choose={() => change(null)} />}
    </span>
  );
}
