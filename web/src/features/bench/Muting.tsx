import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { judgeAgain, muteRule } from "../../api/placeActions";
import type { Finding, FitOut } from "../../api/client";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import type { Bench } from "./useBench";

interface Props {
  bench: Bench;
  fit: FitOut;
  finding: Finding;
}

/** Says that something is right as it is, and why; the reason goes into the record when the file is delivered. */
export function Muting({ bench, fit, finding }: Props) {
  const queries = useQueryClient();
  const [asked, setAsked] = useState(false);
  const [reason, setReason] = useState("");
  const onSuccess = async () => {
    setAsked(false);
    await queries.invalidateQueries({ queryKey: [bench.workspace] });
  };
  const mute = useMutation({
    mutationFn: () => muteRule(bench.workspace, fit.id, finding.rule, reason),
    onSuccess,
  });
  const again = useMutation({
    mutationFn: () => judgeAgain(bench.workspace, fit.id, finding.rule),
    onSuccess,
  });
  const demand = fit.demands.some((one) => one.rule === finding.rule);
  if (finding.severity === "refused" || demand) return null;
  if (finding.muted)
    return (
      <p>
        <b>Right as it is:</b> {finding.muted}{" "}
        <Button look="bare" disabled={again.isPending} onClick={() => again.mutate()}>
          Judge it again
        </Button>
      </p>
    );
  if (!asked)
    return (
      <button
        type="button"
        onClick={() => setAsked(true)}
        className="mt-1 mr-4 inline-block min-h-6 text-[12px] text-soft hover:text-ink hover:underline"
      >
        Right as it is
      </button>
    );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    mute.mutate();
  };
  return (
    <form onSubmit={submit} className="mt-1 flex flex-wrap items-end gap-x-3 gap-y-1">
      <label className="min-w-0 flex-1 text-[12px] text-soft">
        Why? It stands in the record.
        <input
          autoFocus
          required
          minLength={3}
          maxLength={300}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          onKeyDown={(event) => event.key === "Escape" && setAsked(false)}
          className="block min-h-7 w-full border-b border-ink bg-transparent text-[13px] text-ink"
        />
      </label>
      <Button type="submit" disabled={mute.isPending}>
        Leave it so
      </Button>
      {mute.error && <Problem message={mute.error.message} />}
    </form>
  );
}
