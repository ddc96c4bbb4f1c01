import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";

import { signIn } from "../../api/actions";
import { Button } from "../../ui/Button";
import { Dimension } from "../../ui/Dimension";
import { Wordmark } from "../../ui/Header";
import { Problem } from "../../ui/Trouble";
import { PasswordField } from "./PasswordField";

export function SignInScreen() {
  const queries = useQueryClient();
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const enter = useMutation({
    mutationFn: () => signIn(email, password),
    onSuccess: (me) => queries.setQueryData(["session"], me),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    enter.mutate();
  };
  const field =
    "mt-1 block min-h-10 w-full rounded-[2px] border border-ink bg-sheet px-3 text-[15px] outline-offset-2";
  return (
    <main className="mx-auto grid min-h-screen max-w-5xl content-center gap-x-20 gap-y-10 px-7 md:grid-cols-[1fr_340px]">
      <section>
        <Wordmark />
        <h1 className="mt-6 max-w-[16ch] text-[40px] text-balance leading-[1.08]">
          Say where it goes. Fitzle works out the rest.
        </h1>
        <div className="mt-10 flex items-end gap-7 border-b-2 border-strong" aria-hidden>
          {[
            [176, 99],
            [132, 34],
            [60, 60],
            [16, 16],
          ].map(([width, height]) => (
            <span key={width} className="block border border-dashed border-soft" style={{ width, height }} />
          ))}
        </div>
        <div className="mt-1.5 flex gap-7">
          {[176, 132, 60, 16].map((width) => (
            <Dimension key={width} width={width} figure={String(width)} />
          ))}
        </div>
      </section>
      <form onSubmit={submit} className="self-center">
        <h2 className="mb-5 border-b-2 border-strong pb-2 text-lg">Sign in</h2>
        <label className="mb-4 block font-semibold">
          Mail address
          <input
            className={field}
            type="email"
            autoComplete="username"
            required
            autoFocus
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
        </label>
        <PasswordField label="Password" value={password} type={setPassword} />
        {enter.error && (
          <div className="mb-4">
            <Problem message={enter.error.message} />
          </div>
        )}
        <Button
          look="next"
          type="submit"
          className="min-h-10 w-full justify-center"
          disabled={enter.isPending}
        >
          Sign in
        </Button>
      </form>
    </main>
  );
}
