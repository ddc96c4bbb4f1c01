import type { InputHTMLAttributes } from "react";

interface Props extends InputHTMLAttributes<HTMLInputElement> {
  label: string;
  value: string;
  write: (value: string) => void;
}

/** A labelled field of the account. */
export function AccountField({ label, write, ...rest }: Props) {
  return (
    <label className="block text-[13px] text-soft">
      {label}
      <input
        {...rest}
        onChange={(event) => write(event.target.value)}
        className="mt-0.5 block min-h-9 w-full border-b border-ink bg-transparent text-[15px] text-ink"
      />
    </label>
  );
}
