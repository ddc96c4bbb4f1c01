import type { InputHTMLAttributes } from "react";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  hint?: string;
  value: string;
  write: (value: string) => void;
}

/** A field of a form before one is in. */
export function EntranceField({ label, hint, write, ...rest }: Props) {
  return (
    <label className="mb-4 block font-semibold">
      {label}
      {hint && <span className="ml-2 font-normal text-soft">{hint}</span>}
      <input
        {...rest}
        onChange={(event) => write(event.target.value)}
        className="mt-1 block min-h-10 w-full rounded-[2px] border border-ink bg-sheet px-3 text-[15px] outline-offset-2"
      />
    </label>
  );
}
