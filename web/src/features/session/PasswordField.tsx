import { EntranceField } from "./EntranceField";

interface Props {
  label: string;
  value: string;
  type: (password: string) => void;
  /** A new one, that the browser may propose, instead of one that it knows. */
  fresh?: boolean;
}

/** A password that is typed, or put in by the browser. */
export function PasswordField({ label, value, type, fresh = false }: Props) {
  return (
    <EntranceField
      label={label}
      hint={fresh ? "12 letters or more" : undefined}
      type="password"
      autoComplete={fresh ? "new-password" : "current-password"}
      required
      value={value}
      write={type}
    />
  );
}
