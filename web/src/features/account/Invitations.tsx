import { useMutation } from "@tanstack/react-query";

import { makeInvitation } from "../../api/actions";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";

/** Lets others sign up, for who runs this Fitzle. */
export function Invitations() {
  const make = useMutation({ mutationFn: makeInvitation });
  const link = make.data && location.origin + make.data.path;
  return (
    <Section title="Invite somebody">
      <p className="mt-3 text-soft">
        You run this Fitzle. A link lets one person sign up and have a workspace of their own, within 14 days.
      </p>
      {link && (
        <p className="mt-3 flex flex-wrap items-baseline gap-3">
          <span className="figure min-w-0 break-all">{link}</span>
          <Button look="bare" onClick={() => void navigator.clipboard.writeText(link)}>
            Copy it
          </Button>
        </p>
      )}
      <Button className="mt-3" disabled={make.isPending} onClick={() => make.mutate()}>
        {link ? "Make another link" : "Make a link"}
      </Button>
      {make.error && <Problem message={make.error.message} />}
    </Section>
  );
}
