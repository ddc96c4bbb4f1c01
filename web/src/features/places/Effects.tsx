import { useQuery } from "@tanstack/react-query";

import type { Schemas } from "../../api/client";
import { effectQuery } from "../../api/queries";
import { State } from "../../ui/State";

interface Props {
  workspace: string;
  place: string;
  sheet: Schemas["SheetOut"]["sheet"];
}

const ANEW = {
  made: "its file is made anew",
  judged: "its file stays and is judged anew",
  nothing: "nothing changes",
};

/** What another sheet would do to what stands in the place, before it is saved. */
export function Effects({ workspace, place, sheet }: Props) {
  const found = useQuery(effectQuery(workspace, place, sheet)).data;
  const effects = found?.fits ?? [];
  if (effects.length === 0 && !found?.broken) return null;
  return (
    <section aria-label="What it would change" className="mt-6 text-[14px]">
      <h3 className="border-b border-strong pb-1 text-[14px]">What stands there</h3>
      {found?.broken && (
        <p className="border-b border-hairline py-1.5 font-semibold text-risky">
          One file would no longer serve all of its places; each would get its own. {found.broken}
        </p>
      )}
      <ul>
        {effects.map((one) => (
          <li key={one.fit} className="border-b border-hairline py-1.5">
            <span className="flex flex-wrap items-baseline gap-x-3">
              <b>{one.subject}</b>
              {one.place !== place && <span>in {one.place_name}</span>}
              <span className="text-soft">{ANEW[one.anew]}</span>
              {one.after !== one.before && (
                <span className="ml-auto inline-flex items-baseline gap-2">
                  <State state={one.before} /> then <State state={one.after} />
                </span>
              )}
            </span>
            {one.messages.map((message) => (
              <span key={message} className="block text-risky">
                {message}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
