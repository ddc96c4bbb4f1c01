import { EntranceField } from "./EntranceField";

/** The mail address of an account; the first field of its form. */
export function MailField({ value, write }: { value: string; write: (value: string) => void }) {
  return (
    <EntranceField
      label="Mail address"
      type="email"
      autoComplete="username"
      required
      autoFocus
      value={value}
      write={write}
    />
  );
}
