interface Props {
  label: string;
  value: string;
  type: (password: string) => void;
}

/** A password that is typed, or put in by the browser. */
export function PasswordField({ label, value, type }: Props) {
  return (
    <label className="mb-5 block font-semibold">
      {label}
      <input
        className="mt-1 block min-h-10 w-full rounded-[2px] border border-ink bg-sheet px-3 text-[15px] outline-offset-2"
        type="password"
        autoComplete="current-password"
        required
        value={value}
        onChange={(event) => type(event.target.value)}
      />
    </label>
  );
}
