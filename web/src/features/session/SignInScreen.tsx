import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { signIn } from "../../api/account";
import { entranceQuery } from "../../api/queries";
import { CodeFields, useCode } from "./CodeForm";
import { Entrance } from "./Entrance";
import { MailField } from "./MailField";
import { PasswordField } from "./PasswordField";
import { Next, Way, Ways } from "./Said";

export function SignInScreen() {
  const queries = useQueryClient();
  const entrance = useQuery(entranceQuery());
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const done = () => void queries.resetQueries({ queryKey: ["session"] });
  const code = useCode(done);
  const enter = useMutation({
    mutationFn: () => signIn(email, password),
    onSuccess: (step) => step === "in" && done(),
  });
  if (enter.data === "code")
    return (
      <Entrance title="Second step" submit={code.submit}>
        <CodeFields code={code} />
      </Entrance>
    );
  return (
    <Entrance title="Sign in" submit={() => enter.mutate()}>
      <MailField value={email} write={setEmail} />
      <PasswordField label="Password" value={password} type={setPassword} />
      <Next words="Sign in" busy={enter.isPending} error={enter.error} />
      <Ways>
        {entrance.data && entrance.data.sign_up !== "closed" && <Way to="/sign-up">New here? Sign up</Way>}
        <Way to="/password">Forgotten your password?</Way>
      </Ways>
    </Entrance>
  );
}
