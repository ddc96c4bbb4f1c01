import type { ReactNode } from "react";
import { Link } from "react-router";

import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** The one thing to do next in a form before one is in, and what went wrong with it. */
export function Next({ words, busy, error }: { words: string; busy: boolean; error: Error | null }) {
  return (
    <>
      {error && (
        <div className="mb-4">
          <Problem message={error.message} />
        </div>
      )}
      <Button look="next" type="submit" className="min-h-10 w-full justify-center" disabled={busy}>
        {words}
      </Button>
    </>
  );
}

/** The other ways from here. */
export function Ways({ children }: { children: ReactNode }) {
  return <p className="mt-5 flex flex-wrap justify-between gap-x-5 gap-y-1 text-[13px]">{children}</p>;
}

export function Way({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link to={to} className="inline-flex min-h-6 items-center font-semibold text-measure hover:underline">
      {children}
    </Link>
  );
}

/** Where a mail is: on its way, held up by a server that is away, or in the mails of this machine. */
export function MailNotes({ here, delayed }: { here: boolean; delayed: boolean }) {
  return (
    <>
      {delayed && (
        <p role="status" className="mt-3 border-l-2 border-risky pl-3 font-semibold text-risky">
          The mail server does not answer just now. Your mail is kept, and sent as soon as it does.
        </p>
      )}
      {here && (
        <p className="mt-3 flex flex-wrap gap-x-2 text-soft">
          This Fitzle has no mail server. <Way to="/mail">Read its mails</Way>
        </p>
      )}
    </>
  );
}
