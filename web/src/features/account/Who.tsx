import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { changeAddress, readAddresses, sendLinkAgain } from "../../api/account";
import { callMe } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { entranceQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";
import { MailNotes } from "../session/Said";
import { AccountField } from "./AccountField";

/** Name and mail address. */
export function Who({ me }: { me: Schemas["Me"] }) {
  return (
    <Section title="Who you are">
      <Name me={me} />
      <Address me={me} />
    </Section>
  );
}

function Name({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [name, setName] = useState(me.name);
  const save = useMutation({
    mutationFn: () => callMe(name),
    onSuccess: (saved) => queries.setQueryData(["session"], saved),
  });
  return (
    <form
      className="mt-3 flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <div className="grow">
        <AccountField label="Your name" autoComplete="name" maxLength={120} value={name} write={setName} />
      </div>
      <Button type="submit" disabled={save.isPending || name.trim() === me.name}>
        Save
      </Button>
      {save.error && <Problem message={save.error.message} />}
    </form>
  );
}

function Address({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [next, setNext] = useState("");
  const entrance = useQuery({ ...entranceQuery(), refetchInterval: 5000 });
  const addresses = useQuery({ queryKey: ["addresses"], queryFn: readAddresses });
  const waiting = addresses.data?.find((one) => !one.verified);
  const settle = () => queries.invalidateQueries({ queryKey: ["addresses"] });
  const change = useMutation({ mutationFn: () => changeAddress(next), onSuccess: settle });
  const again = useMutation({ mutationFn: (email: string) => sendLinkAgain(email), onSuccess: settle });
  return (
    <>
      <p className="mt-5 text-[13px] text-soft">
        Mail address
        <span className="mt-0.5 block text-[15px] text-ink">
          {me.email} {me.confirmed && <span className="text-[13px] font-semibold text-fits">confirmed</span>}
        </span>
      </p>
      {waiting && (
        <p role="status" className="mt-2 border-l-2 border-risky pl-3">
          A link was sent to <b>{waiting.email}</b>. Follow it, and the address is confirmed
          {waiting.primary ? "" : " and takes the place of the present one"}.{" "}
          <Button look="bare" disabled={again.isPending} onClick={() => again.mutate(waiting.email)}>
            {again.isSuccess ? "Sent again" : "Send it again"}
          </Button>
        </p>
      )}
      {(waiting ?? change.isSuccess) && (
        <MailNotes
          here={entrance.data?.mails_here ?? false}
          delayed={entrance.data?.mails_delayed ?? false}
        />
      )}
      <form
        className="mt-3 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate();
        }}
      >
        <div className="grow">
          <AccountField
            label="Another mail address"
            type="email"
            required
            autoComplete="email"
            value={next}
            write={setNext}
          />
        </div>
        <Button type="submit" disabled={change.isPending || !next.trim()}>
          Send a link to it
        </Button>
      </form>
      {(change.error ?? again.error) && <Problem message={(change.error ?? again.error)!.message} />}
    </>
  );
}
