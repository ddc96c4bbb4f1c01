import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { changePassword } from "../../api/account";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";
import { AccountField } from "./AccountField";

/** Another password, by who knows the present one. */
export function NewPassword() {
  const [present, setPresent] = useState("");
  const [next, setNext] = useState("");
  const save = useMutation({
    mutationFn: () => changePassword(present, next),
    onSuccess: () => {
      setPresent("");
      setNext("");
    },
  });
  return (
    <Section title="Password">
      <form
        className="mt-3 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <AccountField
          label="Present password"
          type="password"
          required
          autoComplete="current-password"
          value={present}
          write={setPresent}
        />
        <AccountField
          label="New password, 12 letters or more"
          type="password"
          required
          autoComplete="new-password"
          value={next}
          write={setNext}
        />
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit" disabled={save.isPending || !present || !next}>
            Change it
          </Button>
          {save.isSuccess && (
            <span role="status" className="text-[13px] font-semibold text-fits">
              Changed. Whoever was signed in elsewhere is out.
            </span>
          )}
        </div>
        {save.error && <Problem message={save.error.message} />}
      </form>
    </Section>
  );
}
