import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import {
  beginTwoSteps,
  endTwoSteps,
  finishTwoSteps,
  givePassword,
  makeRecoveryCodes,
  readRecoveryCodes,
  readTwoSteps,
} from "../../api/account";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";
import { AccountField } from "./AccountField";
import { RecoveryCodes } from "./RecoveryCodes";

/** Two steps at signing in: a code of the telephone beside the password. */
export function TwoSteps({ confirmed }: { confirmed: boolean }) {
  const on = useQuery({ queryKey: ["two-steps"], queryFn: readTwoSteps }).data;
  const [codes, setCodes] = useState<string[]>([]);
  return (
    <Section title="Two steps at signing in">
      {codes.length > 0 && <RecoveryCodes codes={codes} done={() => setCodes([])} />}
      {codes.length === 0 && on === true && <SwitchedOn show={setCodes} />}
      {codes.length === 0 && on === false && !confirmed && (
        <p className="mt-3 text-soft">
          A code of your telephone beside the password. Confirm your mail address first.
        </p>
      )}
      {codes.length === 0 && on === false && confirmed && <SwitchedOff show={setCodes} />}
    </Section>
  );
}

interface Props {
  /** Shows recovery codes, once. */
  show: (codes: string[]) => void;
}

function SwitchedOff({ show }: Props) {
  const queries = useQueryClient();
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const begin = useMutation({
    mutationFn: async () => {
      await givePassword(password);
      return beginTwoSteps();
    },
  });
  const finish = useMutation({
    mutationFn: async () => {
      await finishTwoSteps(code.trim());
      return readRecoveryCodes();
    },
    onSuccess: async (codes) => {
      show(codes);
      await queries.invalidateQueries({ queryKey: ["two-steps"] });
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (begin.data) finish.mutate();
    else begin.mutate();
  };
  const error = begin.error ?? finish.error;
  return (
    <form className="mt-3 grid gap-3" onSubmit={submit}>
      {!begin.data && (
        <>
          <p className="text-soft">Off. Signing in asks for your password only.</p>
          <AccountField
            label="Your password, to switch them on"
            type="password"
            required
            autoComplete="current-password"
            value={password}
            write={setPassword}
          />
        </>
      )}
      {begin.data && (
        <>
          <p>Take this up with the program for such codes on your telephone, then type the code it shows.</p>
          <div className="flex flex-wrap items-center gap-5">
            <img
              src={`data:image/svg+xml;base64,${btoa(begin.data.picture)}`}
              alt="The secret, for the camera of your telephone"
              className="size-40 bg-white p-2"
            />
            <p className="max-w-48 text-[13px] text-soft">
              Or type it there:
              <span className="figure mt-1 block break-all text-ink">{begin.data.secret}</span>
            </p>
          </div>
          <AccountField
            label="Code"
            required
            autoComplete="one-time-code"
            inputMode="numeric"
            value={code}
            write={setCode}
          />
        </>
      )}
      <Button type="submit" className="justify-self-start" disabled={begin.isPending || finish.isPending}>
        Switch two steps on
      </Button>
      {error && <Problem message={error.message} />}
    </form>
  );
}

function SwitchedOn({ show }: Props) {
  const queries = useQueryClient();
  const [password, setPassword] = useState("");
  const off = useMutation({
    mutationFn: async () => {
      await givePassword(password);
      await endTwoSteps();
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["two-steps"] }),
  });
  const anew = useMutation({
    mutationFn: async () => {
      await givePassword(password);
      return makeRecoveryCodes();
    },
    onSuccess: show,
  });
  const error = off.error ?? anew.error;
  return (
    <div className="mt-3 grid gap-3">
      <p>
        <b className="text-fits">On.</b> Signing in asks for a code of your telephone beside the password.
      </p>
      <AccountField
        label="Your password, to change that"
        type="password"
        autoComplete="current-password"
        value={password}
        write={setPassword}
      />
      <div className="flex flex-wrap gap-3">
        <Button disabled={!password || off.isPending} onClick={() => off.mutate()}>
          Switch two steps off
        </Button>
        <Button disabled={!password || anew.isPending} onClick={() => anew.mutate()}>
          New recovery codes
        </Button>
      </div>
      {error && <Problem message={error.message} />}
    </div>
  );
}
