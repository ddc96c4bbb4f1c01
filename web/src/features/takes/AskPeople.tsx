import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { askPeople, endQuestion, questionsQuery, type Question } from "../../api/askQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

const DAYS = [1, 3, 7, 14, 30];

interface Props {
  workspace: string;
  fit: string;
  scene: { id: string; name: string };
  takes: number;
}

/** A link that asks people which take they like better, and what they said. */
export function AskPeople({ workspace, fit, scene, takes }: Props) {
  const [days, setDays] = useState(7);
  const queries = useQueryClient();
  const asked = useQuery(questionsQuery(workspace, fit));
  const again = () => queries.invalidateQueries({ queryKey: [workspace, "questions", fit] });
  const ask = useMutation({
    mutationFn: () => askPeople(workspace, fit, scene.id, days),
    onSuccess: again,
  });
  const end = useMutation({
    mutationFn: (question: string) => endQuestion(workspace, question),
    onSuccess: again,
  });
  const trouble = ask.error ?? end.error;
  return (
    <section aria-labelledby="ask" className="mt-9">
      <h2 id="ask" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Ask people
      </h2>
      {takes < 2 ? (
        <p className="pt-3 text-[13px]">With two takes you can ask people which one they like better.</p>
      ) : (
        <div className="flex flex-wrap items-center gap-3 pt-3 text-[13px]">
          <p>
            A link shows the {takes} takes in “{scene.name}”, in another order to each person, for
          </p>
          <select
            aria-label="How long"
            value={days}
            onChange={(event) => setDays(Number(event.target.value))}
            className="min-h-7 border-b border-hairline bg-transparent font-semibold"
          >
            {DAYS.map((count) => (
              <option key={count} value={count}>
                {plural(count, "day", "days")}
              </option>
            ))}
          </select>
          <Button disabled={ask.isPending} onClick={() => ask.mutate()}>
            {ask.isPending ? "Making the link…" : "Make the link"}
          </Button>
        </div>
      )}
      {trouble && <Problem message={trouble.message} />}
      <ul>
        {asked.data?.map((question) => (
          <Asked key={question.id} question={question} end={() => end.mutate(question.id)} />
        ))}
      </ul>
    </section>
  );
}

function Asked({ question, end }: { question: Question; end: () => void }) {
  const most = Math.max(1, ...question.answers.map((one) => one.votes));
  return (
    <li className="mt-5 max-w-2xl text-[13px]">
      {question.open ? (
        <div className="flex flex-wrap items-baseline gap-x-4">
          <input
            readOnly
            aria-label="Link to send"
            value={question.address}
            onFocus={(event) => event.target.select()}
            className="figure min-h-8 min-w-0 flex-1 border-b border-hairline bg-transparent"
          />
          <Button look="quiet" onClick={() => void navigator.clipboard?.writeText(question.address)}>
            Copy it
          </Button>
          <Button look="bare" onClick={end}>
            End it now
          </Button>
        </div>
      ) : (
        <p className="text-soft">Asked on {day(question.asked_at)}, ended.</p>
      )}
      <p aria-live="polite" className="pt-2 font-semibold">
        {question.verdict}
      </p>
      <ul className="pt-1">
        {question.answers.map((one) => (
          <li key={one.name} className="py-1">
            <span className="grid grid-cols-[64px_1fr_48px] items-center gap-3">
              <span className="font-semibold">Take {one.name}</span>
              <span className="h-2.5 border-b border-hairline">
                <span className="block h-full bg-measure" style={{ width: `${(one.votes / most) * 100}%` }} />
              </span>
              <span className="figure text-right">{one.votes}</span>
            </span>
            {one.why.map((words, index) => (
              <span key={index} className="block pl-[76px] text-soft">
                “{words}”
              </span>
            ))}
          </li>
        ))}
      </ul>
      {question.open && <p className="figure pt-1 text-soft">open until {day(question.ends_at)}</p>}
    </li>
  );
}

const day = (iso: string) =>
  new Date(iso).toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });
