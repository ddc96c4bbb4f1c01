import { useState } from "react";

import { Line } from "./PartsPanel";

interface Props {
  label: string;
  none: string;
  value: string | null;
  suggested: readonly string[];
  change: (colour: string | null) => void;
}

const HEX = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i;

/** A colour: house colours first, none, or a hex code. */
export function ColourField({ label, none, value, suggested, change }: Props) {
  const colours = [...new Set(suggested)];
  return (
    <Line term={label}>
      <div className="flex flex-wrap items-center gap-1">
        {colours.map((colour) => (
          <button
            key={colour}
            type="button"
            aria-label={`${label} ${colour}`}
            aria-pressed={colour === value}
            onClick={() => change(colour)}
            className={`size-6 border ${colour === value ? "border-2 border-measure" : "border-hairline"}`}
            style={{ background: colour }}
          />
        ))}
      </div>
      <div className="mt-1 flex items-baseline gap-3">
        <Hex key={value ?? ""} label={label} value={value} change={change} />
        <button
          type="button"
          aria-pressed={value === null}
          onClick={() => value !== null && change(null)}
          className={`min-h-6 text-[12px] ${value === null ? "font-semibold" : "text-measure hover:underline"}`}
        >
          {none}
        </button>
      </div>
    </Line>
  );
}

function Hex({
  label,
  value,
  change,
}: {
  label: string;
  value: string | null;
  change: (colour: string) => void;
}) {
  const [text, setText] = useState(value ?? "");
  const wrong = text !== "" && !HEX.test(text);
  const done = () => text !== (value ?? "") && text !== "" && !wrong && change(text);
  return (
    <input
      aria-label={`${label} as a hex code`}
      aria-invalid={wrong}
      placeholder="#1d3b4f"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => event.key === "Enter" && done()}
      className={`figure min-h-6 w-18 border-b bg-transparent placeholder:text-soft ${wrong ? "border-refused text-refused" : "border-ink"}`}
    />
  );
}
