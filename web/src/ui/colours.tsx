import { useEffect, useRef } from "react";

import { HEX, normalHex } from "./Hex";

interface SwatchProps {
  label: string;
  colour: string;
  chosen: boolean;
  title?: string;
  choose: () => void;
}

/** One colour that is at hand. */
export function Swatch({ label, colour, chosen, title, choose }: SwatchProps) {
  return (
    <button
      type="button"
      aria-label={`${label} ${colour}`}
      aria-pressed={chosen}
      title={title ?? colour}
      onClick={choose}
      className={`size-6 border ${chosen ? "border-2 border-measure" : "border-hairline"}`}
      style={{ background: colour }}
    />
  );
}

interface AnyColourProps {
  label: string;
  value: string | null;
  /** What is being chosen; null for nothing. */
  typed: string | null;
  setTyped: (text: string | null) => void;
  change: (colour: string) => void;
}

/** Any colour from the browser's palette: shown while it is looked for, taken when the palette closes. */
export function AnyColour({ label, value, typed, setTyped, change }: AnyColourProps) {
  const palette = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const input = palette.current!;
    const closed = () => {
      setTyped(null);
      if (input.value !== value) change(input.value);
    };
    // React's own onChange comes with every colour on the way.
    input.addEventListener("change", closed);
    return () => input.removeEventListener("change", closed);
  });
  return (
    <input
      ref={palette}
      type="color"
      aria-label={`${label} from a palette`}
      title="Any colour"
      value={typed && HEX.test(typed) ? normalHex(typed) : (value ?? "#808080")}
      onChange={(event) => setTyped(event.target.value)}
      className="size-6 cursor-pointer border border-hairline bg-transparent p-0"
    />
  );
}

/** The choice of no colour, by the name it has there. */
export function NoColour({ words, chosen, choose }: { words: string; chosen: boolean; choose: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={() => !chosen && choose()}
      className={`min-h-6 text-[12px] ${chosen ? "font-semibold" : "text-measure hover:underline"}`}
    >
      {words}
    </button>
  );
}
