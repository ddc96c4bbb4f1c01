import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";

import { answer, askedQuery, optionUrl } from "../../api/askQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** What a link asks of people: which picture they like better, and why in a line. Nothing else of anybody is here. */
export function AskScreen() {
  const { token = "" } = useParams();
  const asked = useQuery(askedQuery(token));
  const [option, setOption] = useState<string | null>(null);
  const [why, setWhy] = useState("");
  const send = useMutation({ mutationFn: () => answer(token, option!, why) });
  if (asked.error) return <Said words={asked.error.message} />;
  if (!asked.data) return <main aria-busy className="px-5 py-10" />;
  if (asked.data.answered || send.isSuccess)
    return <Said words="Thank you. Your answer is counted; this page can be closed." />;
  return (
    <main className="mx-auto max-w-5xl px-5 pt-6 pb-28">
      <h1 className="text-[22px]">Which one do you like better?</h1>
      <p className="pt-1 text-[14px] text-soft">Touch it. Whose it is does not matter, only what you see.</p>
      <ul className="mt-5 flex flex-wrap items-start gap-6">
        {asked.data.options.map((key, index) => (
          <li key={key}>
            <button
              type="button"
              aria-pressed={option === key}
              aria-label={`Number ${index + 1}`}
              onClick={() => setOption(key)}
              className={`block border-4 ${option === key ? "border-measure" : "border-hairline hover:border-soft"}`}
            >
              <img
                src={optionUrl(token, key)}
                alt={`Number ${index + 1}`}
                className="block max-h-[70vh] w-auto max-w-[min(100%,420px)]"
              />
            </button>
          </li>
        ))}
      </ul>
      {option && (
        <form
          className="sticky bottom-0 mt-6 max-w-md border-t-2 border-strong bg-paper pt-3 pb-4"
          onSubmit={(event) => {
            event.preventDefault();
            send.mutate();
          }}
        >
          <label className="block text-[14px]">
            Why? A line, if you like.
            <input
              value={why}
              maxLength={asked.data.longest_why}
              onChange={(event) => setWhy(event.target.value)}
              className="mt-1 block min-h-10 w-full border-b border-ink bg-transparent text-[16px]"
            />
          </label>
          {send.error && <Problem message={send.error.message} />}
          <Button look="next" type="submit" className="mt-4 min-h-11 px-5" disabled={send.isPending}>
            Send my answer
          </Button>
        </form>
      )}
    </main>
  );
}

const Said = ({ words }: { words: string }) => (
  <main className="mx-auto max-w-md px-6 py-16">
    <h1 className="text-[18px] leading-7">{words}</h1>
  </main>
);
