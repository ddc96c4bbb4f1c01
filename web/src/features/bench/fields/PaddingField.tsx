import { useState } from "react";

import type { Schemas } from "../../../api/client";
import { Line } from "../../../ui/fields";

type Length = Schemas["Length"];

interface Props {
  padding: Length | null;
  /** What it comes to, in each unit; the server's figures. */
  chosen: Record<Length["unit"], number>;
  change: (padding: Length | null) => void;
}

/** Padding in px of the file or in percent of its short side; empty lets Fitzle choose. */
export function PaddingField({ padding, chosen, change }: Props) {
  const unit = padding?.unit ?? "px";
  const choose = (next: Length["unit"]) => change({ value: chosen[next], unit: next });
  const shown = String(padding ? padding.value : Math.round(chosen.px * 10) / 10);
  return (
    <Line term="Padding">
      <div className="flex items-baseline gap-1.5">
        <PaddingFigure
          key={`${shown}${unit}`}
          shown={shown}
          commit={(value) => change(value === null ? null : { value, unit })}
        />
        <select
          aria-label="Unit of the padding"
          value={unit}
          onChange={(event) => choose(event.target.value as Length["unit"])}
          className="min-h-6 bg-transparent"
        >
          <option value="px">px</option>
          <option value="%">%</option>
        </select>
        {padding ? (
          <button
            type="button"
            className="min-h-6 text-[12px] font-semibold text-measure hover:underline"
            onClick={() => change(null)}
          >
            automatic
          </button>
        ) : (
          <span className="text-[12px] text-soft">automatic</span>
        )}
      </div>
    </Line>
  );
}

function PaddingFigure({ shown, commit }: { shown: string; commit: (value: number | null) => void }) {
  const [text, setText] = useState(shown);
  const done = () => {
    if (text.trim() === shown) return;
    const value = Number(text.replace(",", "."));
    if (text.trim() === "") commit(null);
    else if (Number.isFinite(value) && value >= 0) commit(value);
    else setText(shown);
  };
  return (
    <input
      aria-label="Padding"
      inputMode="decimal"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === "Enter") done();
        const step = { ArrowUp: 1, ArrowDown: -1 }[event.key];
        if (step) {
          event.preventDefault();
          setText(String(Math.max(0, Number(text) + step)));
        }
      }}
      className="figure min-h-6 w-12 border-b border-ink bg-transparent text-measure"
    />
  );
}
