import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { mailsQuery } from "../../api/queries";
import { Wordmark } from "../../ui/Header";
import { Trouble } from "../../ui/Trouble";

/** The mails of an installation that has no mail server, for its own people. */
export function MailsScreen() {
  const mails = useQuery(mailsQuery());
  if (mails.error && !mails.data) return <Trouble error={mails.error} />;
  if (!mails.data) return <main aria-busy className="px-7 py-10" />;
  return (
    <main className="mx-auto max-w-3xl px-7 py-8">
      <Link to="/" aria-label="Fitzle">
        <Wordmark />
      </Link>
      <h1 className="mt-5 text-[26px]">Mails of this machine</h1>
      <p className="mt-1 mb-6 max-w-[60ch] text-soft">
        Fitzle has no mail server here, so it writes its mails down. Only who uses this machine can read them.
      </p>
      {mails.data.length === 0 && (
        <p className="border-t border-dashed border-strong pt-4 text-soft">No mail yet.</p>
      )}
      {mails.data.map((mail, index) => (
        <article key={index} className="border-t border-hairline py-4">
          <h2 className="text-[16px]">{mail.subject}</h2>
          <p className="text-[13px] text-soft">
            to {mail.to}, {new Date(mail.at).toLocaleString("en-GB")}
          </p>
          <p className="mt-2 whitespace-pre-line [overflow-wrap:anywhere]">{linked(mail.body)}</p>
        </article>
      ))}
    </main>
  );
}

/** The words of a mail with its addresses as links; those of this Fitzle stay in this window. */
function linked(body: string) {
  return body.split(/(https?:\/\/\S+)/).map((part, index) =>
    part.startsWith("http") ? (
      <a key={index} href={part} className="font-semibold text-measure underline">
        {part}
      </a>
    ) : (
      part
    ),
  );
}
