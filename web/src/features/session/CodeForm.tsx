import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { giveCode } from "../../api/account";
import { EntranceField } from "./EntranceField";
import { Next } from "./Said";

/** The fields of the second step; they stand in a form that calls `submit` of useCode. */
export function CodeFields({ code }: { code: ReturnType<typeof useCode> }) {
  return (
    <>
      <p className="mb-4 text-soft">
        Your password is right. Now the code that your telephone shows for Fitzle, or one of your recovery
        codes.
      </p>
      <EntranceField
        label="Code"
        inputMode="text"
        autoComplete="one-time-code"
        required
        autoFocus
        value={code.value}
        write={code.write}
      />
      <Next words="Go on" busy={code.enter.isPending} error={code.enter.error} />
    </>
  );
}

export function useCode(done: () => void) {
  const [value, write] = useState("");
  const enter = useMutation({ mutationFn: () => giveCode(value.trim()), onSuccess: done });
  return { value, write, enter, submit: () => enter.mutate() };
}
