import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { askForNewPassword } from "../../api/account";
import { entranceQuery } from "../../api/queries";
import { Entrance } from "./Entrance";
import { MailField } from "./MailField";
import { MailNotes, Next, Way, Ways } from "./Said";

/** Sends a link to a new password. */
export function ForgottenScreen() {
  const queries = useQueryClient();
  const entrance = useQuery({ ...entranceQuery(), refetchInterval: 3000 });
  const [email, setEmail] = useState("");
  const ask = useMutation({
    mutationFn: () => askForNewPassword(email),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["entrance"] }),
  });
  if (ask.isSuccess)
    return (
      <Entrance title="Look into your mail">
        <p>
          A mail to <b>{email}</b> is on its way. Its link leads to a new password, once, within three days.
        </p>
        <MailNotes
          here={entrance.data?.mails_here ?? false}
          delayed={entrance.data?.mails_delayed ?? false}
        />
        <Ways>
          <Way to="/">Back to signing in</Way>
        </Ways>
      </Entrance>
    );
  return (
    <Entrance title="A new password" submit={() => ask.mutate()}>
      <MailField value={email} write={setEmail} />
      <Next words="Send me a link" busy={ask.isPending} error={ask.error} />
      <Ways>
        <Way to="/">Back to signing in</Way>
      </Ways>
    </Entrance>
  );
}
