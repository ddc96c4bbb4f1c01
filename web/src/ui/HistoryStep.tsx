interface Props {
  way: "Undo" | "Redo";
  /** What would be undone or redone, in words. */
  step: string | null | undefined;
  press: () => void;
}

/** A button that names what it takes back or makes again. */
export function HistoryStep({ way, step, press }: Props) {
  if (!step && way === "Redo") return null;
  return (
    <button
      type="button"
      disabled={!step}
      onClick={press}
      className="min-h-8 px-2 text-[13px] text-soft enabled:hover:text-ink enabled:hover:underline disabled:opacity-60"
    >
      {step ? `${way} ${step}` : "Nothing to undo"}
    </button>
  );
}
