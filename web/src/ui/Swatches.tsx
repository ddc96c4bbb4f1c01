import { useState } from "react";

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
          <button
            key={colour}
            type="button"
            aria-label={`${label} ${colour}`}
            aria-pressed={colour === value}
            title={colour}
            onClick={() => change(colour)}
            className={`size-6 border ${colour === value ? "border-2 border-measure" : "border-hairline"}`}
            style={{ background: colour }}
          />
        ))}
      </span>
      <Hex label={label} value={value} typed={typed} setTyped={setTyped} change={change} />
      <input
        type="color"
        aria-label={`${label} from a palette`}
        value={value ?? "#808080"}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={(event) => {
          setTyped(null);
          if (typed && event.target.value !== value) change(event.target.value);
        }}
        className="size-6 cursor-pointer border border-hairline bg-transparent p-0"
      />
      {none && (
        <button
          type="button"
          aria-pressed={value === null}
          onClick={() => value !== null && change(null)}
          className={`min-h-6 text-[12px] ${value === null ? "font-semibold" : "text-measure hover:underline"}`}
        >
          {none}
        </button>
      )}
    </span>
  );
}
