import { useState, type ReactNode } from "react";

import { useRange } from "./useLimits";

/** A term and its value side by side. */
export function Line({ term, children }: { term: string; children: ReactNode }) {
  return (
    <div className="mt-1.5 grid grid-cols-[68px_1fr] items-baseline gap-2 text-[13px]">
      <span className="text-soft">{term}</span>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  options: [T, string][];
  value: T;
  choose: (value: T) => void;
}

/** A few words of which one holds. */
export function Choice<T extends string>({ label, options, value, choose }: ChoiceProps<T>) {
  return (
    <Line term={label}>
      <div role="group" aria-label={label} className="flex flex-wrap gap-x-3">
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

interface SelectProps {
  label: string;
  options: readonly string[];
  value: string;
  choose: (value: string) => void;
}

/** One of many. */
export function Select({ label, options, value, choose }: SelectProps) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => choose(event.target.value)}
      className="min-h-6 max-w-full border-b border-ink bg-transparent [&>option]:bg-sheet"
    >
      {options.map((option) => (
        <option key={option}>{option}</option>
      ))}
    </select>
  );
}

interface FigureProps {
  label: string;
  value: number;
  unit?: string;
  step?: number;
  least?: number;
  most?: number;
  change: (value: number) => void;
}

/** A figure that can be typed, or stepped with the arrow keys. */
export function Figure({
  label,
  value,
  unit,
  step = 1,
  least = -Infinity,
  most = Infinity,
  change,
}: FigureProps) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? String(Math.round(value * 100) / 100);
  const within = (wanted: number) => Math.min(most, Math.max(least, Math.round(wanted * 1000) / 1000));
  const done = () => {
    const wanted = Number(shown.replace(",", "."));
    setText(null);
    if (text !== null && text.trim() !== "" && Number.isFinite(wanted) && within(wanted) !== value)
      change(within(wanted));
  };
  return (
    <span className="inline-flex items-baseline gap-1">
      <input
        aria-label={label}
        inputMode="decimal"
        value={shown}
        onChange={(event) => setText(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === "Enter") done();
          if (event.key === "Escape") setText(null);
          const by = { ArrowUp: step, ArrowDown: -step }[event.key];
          if (!by) return;
          event.preventDefault();
          setText(String(within(Number(shown) + by * (event.shiftKey ? 10 : 1))));
        }}
        className="figure min-h-6 w-11 border-b border-ink bg-transparent text-measure"
      />
      {unit && <span className="text-[12px] text-soft">{unit}</span>}
    </span>
  );
}

interface PercentProps {
  /** What it is called by a screen reader; else the words before it. */
  label?: string;
  words?: string;
  /** As a fraction. */
  value: number | null | undefined;
  /** The document and its field, whose range the server states; else all fractions. */
  of?: [string, string];
  change: (value: number) => void;
}

/** A fraction, shown and typed in percent. */
export function Percent({ label, words, value, of = ["", ""], change }: PercentProps) {
  const { least = 0, most = 100 } = useRange(of[0], of[1], 100);
  return (
    <span>
      {words && <span className="pr-1 text-[12px] text-soft">{words}</span>}
      <Figure
        label={label ?? words ?? ""}
        unit="%"
        value={(value ?? 0) * 100}
        least={least}
        most={most}
        change={(percent) => change(percent / 100)}
      />
    </span>
  );
}

/** Something that is there or not; its fields show when it is. */
export function Optional({
  label,
  on,
  turn,
  children,
}: {
  label: string;
  on: boolean;
  turn: (on: boolean) => void;
  children?: ReactNode;
}) {
  return (
    <Line term={label}>
      <button
        type="button"
        role="switch"
        aria-checked={on}
        aria-label={label}
        onClick={() => turn(!on)}
        className={`min-h-6 border-b-2 ${on ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
      >
        {on ? "on" : "none"}
      </button>
      {on && children && <div className="mt-1 flex flex-wrap items-baseline gap-x-3 gap-y-1">{children}</div>}
    </Line>
  );
}
