import { useQuery } from "@tanstack/react-query";

import { proposalsQuery } from "../../api/takeQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

interface Props {
  workspace: string;
  fit: string;
  full: boolean;
  busy: boolean;
  add: (proposal: string) => void;
}

/** Another take: a copy to change, or one that was worked out, each with a line that explains it. */
export function Proposals({ workspace, fit, full, busy, add }: Props) {
  const found = useQuery(proposalsQuery(workspace, fit));
  return (
    <section aria-labelledby="another" className="mt-9">
      <h2 id="another" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Another take
      </h2>
      {full ? (
        <p className="pt-3 text-[13px]">There is no room for another one. Take one away first.</p>
      ) : (
        <>
          <Button className="mt-3" disabled={busy} onClick={() => add("")}>
            A copy, to change by hand
          </Button>
          {found.isPending && (
            <p aria-live="polite" className="pt-3 text-[13px] text-soft">
              working out others…
            </p>
          )}
          {found.error && <Problem message={found.error.message} />}
          <ul className="mt-4 flex flex-wrap items-end gap-x-7 gap-y-5">
            {found.data?.map((one) => (
              <li key={one.id} className="w-[220px] text-[13px]">
                <img
                  src={one.picture}
                  alt=""
                  className="block max-h-40 w-full object-contain object-left-bottom"
                />
                <p className="pt-1.5">{one.words}</p>
                <p className="figure text-soft">
                  {one.risky === 0 ? "nothing to mend" : `${plural(one.risky, "thing", "things")} to look at`}
                </p>
                <Button look="quiet" className="mt-1.5" disabled={busy} onClick={() => add(one.id)}>
                  Make it a take
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
