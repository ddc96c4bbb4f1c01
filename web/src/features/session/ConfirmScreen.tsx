import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";

import { confirmAddress } from "../../api/account";
import { Entrance } from "./Entrance";
import { Next } from "./Said";

/** Where the link of a mail leads. It is confirmed by a button: programs that look into mails follow links too. */
export function ConfirmScreen() {
  const { key = "" } = useParams();
  const queries = useQueryClient();
  const confirm = useMutation({
    mutationFn: () => confirmAddress(key),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["session"] }),
  });
  if (confirm.isSuccess)
    return (
      <Entrance title="Your mail address is confirmed" submit={() => location.assign("/")}>
        <Next words="Go on" busy={false} error={null} />
      </Entrance>
    );
  return (
    <Entrance title="Confirm your mail address" submit={() => confirm.mutate()}>
      <p className="mb-5">One click, and Fitzle knows that this address is yours.</p>
      <Next words="It is mine" busy={confirm.isPending} error={confirm.error} />
    </Entrance>
  );
}
