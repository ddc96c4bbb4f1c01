interface Props {
  label: string;
  value: string | null;
  /** What is being typed; null for nothing. */
  typed: string | null;
  setTyped: (text: string | null) => void;
  change: (colour: string) => void;
}

export const HEX = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i;

/** Any spelling of a hex code as `#1d3b4f`. */
export const normalHex = (text: string) => {
  const digits = text.replace("#", "").toLowerCase();
  return `#${digits.length === 3 ? [...digits].map((digit) => digit + digit).join("") : digits}`;
};

/** A hex code that can be typed. */
export function Hex({ label, value, typed, setTyped, change }: Props) {
  const text = typed ?? value ?? "";
  const wrong = text !== "" && !HEX.test(text);
  const done = () => {
    setTyped(null);
    if (typed && !wrong && normalHex(typed) !== value) change(normalHex(typed));
  };
  return (
    <input
      aria-label={`${label} as a hex code`}
      aria-invalid={wrong}
      placeholder="#1d3b4f"
      value={text}
      onChange={(event) => setTyped(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={done}
      onKeyDown={(event) => event.key === "Enter" && done()}
      className={`figure min-h-6 w-16 border-b bg-transparent placeholder:text-soft ${wrong ? "border-refused text-refused" : "border-ink"}`}
    />
  );
}
