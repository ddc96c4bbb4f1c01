import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { makeToken, revokeToken, tokensQuery, type NewToken, type Token } from "../../api/tokenQueries";
import { day } from "../../measure/days";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";

const WORDS: Record<string, string> = { see: "look", change: "change things", deliver: "hand files over" };

/** Tokens with which scripts work here: made, their last use, and an end to each. */
export function Tokens({ workspace }: { workspace: string }) {
  const queries = useQueryClient();
  const tokens = useQuery(tokensQuery(workspace));
  const [made, setMade] = useState<NewToken | null>(null);
  const refresh = () => queries.invalidateQueries({ queryKey: [workspace, "tokens"] });
  const end = useMutation({ mutationFn: (id: number) => revokeToken(workspace, id), onSuccess: refresh });
  return (
    <Section title="Tokens for scripts">
      <p className="my-3">
        A script that carries a token works in this workspace as you, as far as you let it.{" "}
        <a href="/api/openapi.json" className="font-semibold text-measure hover:underline">
          What it can ask
        </a>
      </p>
      {made && <Secret made={made} close={() => setMade(null)} />}
      <ul className="text-[13px]">
        {tokens.data?.map((token) => (
          <Row key={token.id} token={token} end={() => end.mutate(token.id)} />
        ))}
      </ul>
      {end.error && <Problem message={end.error.message} onDismiss={end.reset} />}
      <NewOne
        workspace={workspace}
        done={(token) => {
          setMade(token);
          void refresh();
        }}
      />
    </Section>
  );
}

function Row({ token, end }: { token: Token; end: () => void }) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-b border-hairline py-2">
      <span className="min-w-0">
        <b className="font-semibold">{token.name}</b>{" "}
        <span className="figure text-soft">{token.begins}…</span>
        <span className="block text-soft">
          may {token.scopes.map((scope) => WORDS[scope] ?? scope).join(", ")}; by {token.by};{" "}
          {token.used_at ? `last used on ${day(token.used_at)}` : "never used"}
        </span>
      </span>
      <Button look="bare" onClick={end} aria-label={`Revoke ${token.name}`}>
        Revoke
      </Button>
    </li>
  );
}

function Secret({ made, close }: { made: NewToken; close: () => void }) {
  const [copied, setCopied] = useState(false);
  return (
    <div role="status" className="mb-3 border-l-2 border-measure pl-3 text-[13px]">
      <p>This is shown once. Keep it where the script finds it.</p>
      <code className="figure my-1 block break-all select-all">{made.secret}</code>
      <span className="flex gap-4">
        <Button
          look="bare"
          onClick={() => void navigator.clipboard.writeText(made.secret).then(() => setCopied(true))}
        >
          {copied ? "Copied" : "Copy it"}
        </Button>
        <Button look="bare" onClick={close}>
          I have it
        </Button>
      </span>
    </div>
  );
}

function NewOne({ workspace, done }: { workspace: string; done: (token: NewToken) => void }) {
  const [name, setName] = useState("");
  const [scopes, setScopes] = useState<string[]>([]);
  const make = useMutation({
    mutationFn: () => makeToken(workspace, name, scopes),
    onSuccess: (token) => {
      setName("");
      setScopes([]);
      done(token);
    },
  });
  const toggle = (scope: string) =>
    setScopes(scopes.includes(scope) ? scopes.filter((one) => one !== scope) : [...scopes, scope]);
  return (
    <form
      className="mt-4 grid gap-2 text-[13px]"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <label className="text-soft">
        What it is for
        <input
          value={name}
          maxLength={80}
          required
          onChange={(event) => setName(event.target.value)}
          className="mt-0.5 block min-h-9 w-full border-b border-ink bg-transparent text-[15px] text-ink"
        />
      </label>
      <fieldset className="flex flex-wrap gap-x-5">
        <legend className="sr-only">What it may do beside looking</legend>
        {["change", "deliver"].map((scope) => (
          <label key={scope} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              checked={scopes.includes(scope)}
              onChange={() => toggle(scope)}
              className="size-4 accent-[var(--ink)]"
            />
            {WORDS[scope]}
          </label>
        ))}
      </fieldset>
      {make.error && <Problem message={make.error.message} onDismiss={make.reset} />}
      <Button type="submit" disabled={make.isPending || !name.trim()} className="w-fit">
        Make a token
      </Button>
    </form>
  );
}
