import { Link } from "react-router";

/** A whole screen that could not be shown, with a way back. */
export function Trouble({ error }: { error: Error }) {
  return (
    <main className="mx-auto max-w-xl px-7 py-20">
      <h1 className="mb-3 text-2xl">This cannot be shown.</h1>
      <p className="mb-6 text-soft">{error.message}</p>
      <Link to="/" className="font-semibold text-measure underline">
        Back to the wall
      </Link>
    </main>
  );
}

/** One line that people should know of, read out when nothing else is said. */
export function Notice({ words }: { words: string }) {
  return (
    <p role="status" className="mb-2 border-l-2 border-risky py-0.5 pl-3 font-semibold text-risky">
      {words}
    </p>
  );
}

/** One line of trouble inside a screen, read out at once. */
export function Problem({ message, onDismiss }: { message: string; onDismiss?: () => void }) {
  return (
    <p role="alert" className="flex items-baseline gap-3 border-l-2 border-refused pl-3 text-refused">
      <span>{message}</span>
      {onDismiss && (
        <button type="button" onClick={onDismiss} className="min-h-6 text-[12px] font-semibold underline">
          dismiss
        </button>
      )}
    </p>
  );
}
