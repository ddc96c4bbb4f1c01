import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";

import { setNewPassword } from "../../api/account";
import { Entrance } from "./Entrance";
import { PasswordField } from "./PasswordField";
import { Next, Way, Ways } from "./Said";

/** Where the link of a mail leads: a new password is set, and one signs in with it. */
export function NewPasswordScreen() {
  const { key = "" } = useParams();
  const [password, setPassword] = useState("");
  const save = useMutation({ mutationFn: () => setNewPassword(key, password) });
  if (save.isSuccess)
    return (
      <Entrance title="Your new password holds" submit={() => location.assign("/")}>
        <p className="mb-5">Whoever was signed in with the earlier one is out.</p>
        <Next words="Sign in" busy={false} error={null} />
      </Entrance>
    );
  return (
    <Entrance title="A new password" submit={() => save.mutate()}>
      <PasswordField label="New password" fresh value={password} type={setPassword} />
      <Next words="Use it" busy={save.isPending} error={save.error} />
      <Ways>
        <Way to="/password">Ask for another link</Way>
      </Ways>
    </Entrance>
  );
}
