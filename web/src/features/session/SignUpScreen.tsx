import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";

import { signUp } from "../../api/account";
import { entranceQuery } from "../../api/queries";
import { Entrance } from "./Entrance";
import { EntranceField } from "./EntranceField";
import { MailField } from "./MailField";
import { PasswordField } from "./PasswordField";
import { Next, Way, Ways } from "./Said";

/** Mail address, password and the name of the business; the workspace is there at once. */
export function SignUpScreen() {
  const queries = useQueryClient();
  const invitation = useSearchParams()[0].get("invitation") ?? "";
  const entrance = useQuery(entranceQuery(invitation));
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [business, setBusiness] = useState("");
  const enter = useMutation({
    mutationFn: () => signUp({ email, password, business, invitation }),
    onSuccess: () => queries.resetQueries({ queryKey: ["session"] }),
  });
  if (!entrance.data) return null;
  if (entrance.data.sign_up === "closed" && !entrance.data.invited)
    return <Closed invited={invitation !== ""} />;
  return (
    <Entrance
      title={
        entrance.data.sign_up === "first"
          ? "You are the first here: sign up, and this Fitzle is yours"
          : "Sign up"
      }
      submit={() => enter.mutate()}
    >
      <MailField value={email} write={setEmail} />
      <PasswordField label="Password" fresh value={password} type={setPassword} />
      <EntranceField
        label="Your business"
        hint="or later"
        autoComplete="organization"
        maxLength={120}
        value={business}
        write={setBusiness}
      />
      <Next words="Sign up" busy={enter.isPending} error={enter.error} />
      <Ways>
        <Way to="/">You have an account? Sign in</Way>
      </Ways>
    </Entrance>
  );
}

function Closed({ invited }: { invited: boolean }) {
  return (
    <Entrance title="By invitation">
      <p>
        {invited
          ? "This invitation was used already, or is older than 14 days. Ask for another one."
          : "New people come in by invitation here. Ask who runs this Fitzle for one."}
      </p>
      <Ways>
        <Way to="/">You have an account? Sign in</Way>
      </Ways>
    </Entrance>
  );
}
