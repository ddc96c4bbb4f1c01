import { Plus, X } from "lucide-react";
import { useState, type ReactNode } from "react";

/** A whole figure in px, or none: an empty field asks for nothing. */
export function MaybeFigure({
  label,
  words,
  unit,
  value,
  change,
  whole = true,
}: {
  label: string;
  words?: string;
  unit?: string;
  value: number | null | undefined;
  change: (value: number | null) => void;
  whole?: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null || value === undefined ? "" : String(value));
  const read = (typed: string) => (typed.trim() === "" ? null : Number(typed.replace(",", ".")));
  const wrong = text !== null && Number.isNaN(read(text));
  const done = () => {
    if (text === null || wrong) return;
    const wanted = read(text);
    setText(null);
    const kept = wanted !== null && whole ? Math.round(wanted) : wanted;
    if (kept !== (value ?? null)) change(kept);
  };
  return (
    <span className="inline-flex items-baseline gap-1.5 text-[13px]">
      {words && <span className="text-soft">{words}</span>}
      <input
        aria-label={label}
        aria-invalid={wrong}
        inputMode="decimal"
        placeholder="any"
        value={shown}
        onChange={(event) => setText(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === "Enter") done();
          if (event.key === "Escape" && text !== null) {
            event.preventDefault();
            setText(null);
          }
          const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (!by || wrong) return;
          event.preventDefault();
          setText(String(Math.max(1, (read(shown) ?? 0) + by * (event.shiftKey ? 10 : 1))));
        }}
        className={`figure min-h-6 w-14 border-b bg-transparent placeholder:text-soft ${wrong ? "border-refused text-refused" : "border-ink text-measure"}`}
      />
      {unit && <span className="text-[12px] text-soft">{unit}</span>}
    </span>
  );
}

/** Words that are taken when somebody leaves the field. */
export function Words({
  label,
  value,
  change,
  wide = "w-36",
}: {
  label: string;
  value: string;
  change: (value: string) => void;
  wide?: string;
}) {
  return (
    <input
      key={value}
      aria-label={label}
      defaultValue={value}
      maxLength={120}
      onBlur={(event) => {
        const next = event.target.value.trim();
        if (next && next !== value) change(next);
        else event.target.value = value;
      }}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className={`min-h-6 min-w-0 border-b border-ink bg-transparent text-[13px] ${wide}`}
    />
  );
}

export function Remove({ words, press }: { words: string; press: () => void }) {
  return (
    <button
      type="button"
      aria-label={words}
      title={words}
      onClick={press}
      className="inline-flex size-6 items-center justify-center text-soft hover:text-refused"
    >
      <X aria-hidden size={14} />
    </button>
  );
}

export function Another({ words, press }: { words: string; press: () => void }) {
  return (
    <button
      type="button"
      onClick={press}
      className="inline-flex min-h-6 items-center gap-1 justify-self-start text-[13px] text-measure hover:underline"
    >
      <Plus aria-hidden size={14} /> {words}
    </button>
  );
}

export function Fields({ children }: { children: ReactNode }) {
  return <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">{children}</div>;
}

/** A list with one of its entries changed, or without it (null). */
export function withEntry<T>(list: readonly T[], at: number, next: T | null): T[] {
  return list.flatMap((one, number) => (number !== at ? [one] : next === null ? [] : [next]));
}
