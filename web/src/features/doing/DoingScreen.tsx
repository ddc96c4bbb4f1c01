import { useQuery } from "@tanstack/react-query";
import { Check, TriangleAlert } from "lucide-react";

import type { Schemas } from "../../api/client";
import { doingQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Notice, Trouble } from "../../ui/Trouble";

/** For who runs it: what Fitzle stands on, what waits, what is left of the disk. Looked up anew every few seconds. */
export function DoingScreen() {
  const doing = useQuery(doingQuery());
  if (doing.error && !doing.data) return <Trouble error={doing.error} />;
  if (!doing.data) return <main aria-busy className="px-7 py-10" />;
  const { trouble, parts, disk_free, jobs, workspaces, at } = doing.data;
  const waiting = jobs.reduce((sum, kind) => sum + kind.waiting, 0);
  return (
    <main className="max-w-[1100px] px-7 pt-4 pb-10">
      <h1 className="text-[26px] leading-9">
        {trouble.length
          ? `${plural(trouble.length, "thing", "things")} to look at.`
          : "Fitzle is doing well."}
      </h1>
      <p className="mt-1 mb-4 text-[13px] text-soft">
        Looked at {new Date(at).toLocaleTimeString("en-GB")}
        {disk_free && `; ${disk_free} left on the disk`};{" "}
        {waiting ? plural(waiting, "thing waits", "things wait") : "nothing waits"} for the workers.
      </p>
      {trouble.map((line) => (
        <Notice key={line} words={line} />
      ))}
      <div className="mt-5 grid gap-10 md:grid-cols-[minmax(0,1fr)_minmax(0,2fr)]">
        <section>
          <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">What it stands on</h2>
          <ul className="text-[13px]">
            {parts.map((part) => (
              <li key={part.name} className="flex gap-3 border-b border-hairline py-2">
                {part.answers ? (
                  <Check aria-hidden size={16} className="mt-0.5 text-fits" />
                ) : (
                  <TriangleAlert aria-hidden size={16} className="mt-0.5 text-refused" />
                )}
                <span>
                  <span className="font-semibold">{part.name}</span>{" "}
                  <span className="text-soft">
                    {part.answers ? "answers" : `does not answer. ${part.without}`}
                  </span>
                </span>
              </li>
            ))}
          </ul>
          <h2 className="mt-8 border-b-2 border-strong pb-1.5 text-[16px]">Workspaces</h2>
          <ul className="text-[13px]">
            {workspaces.map((one) => (
              <li key={one.name} className="flex justify-between gap-4 border-b border-hairline py-2">
                <span className="truncate">{one.name}</span>
                <span className="figure">{one.weight}</span>
              </li>
            ))}
          </ul>
        </section>
        <Work jobs={jobs} />
      </div>
    </main>
  );
}

function Work({ jobs }: { jobs: Schemas["Waiting"][] }) {
  return (
    <section>
      <table className="w-full text-left text-[13px]">
        <caption className="border-b-2 border-strong pb-1.5 text-left font-heading text-[16px] font-semibold">
          What the workers have to do
        </caption>
        <thead>
          <tr className="border-b border-hairline text-soft">
            <th className="py-1.5 font-normal">What</th>
            <th className="font-normal">waits</th>
            <th className="font-normal">is done now</th>
            <th className="font-normal">oldest</th>
          </tr>
        </thead>
        <tbody>
          {jobs.map((kind) => (
            <tr key={kind.kind} className="border-b border-hairline align-top">
              <td className="py-2">
                {kind.what}
                {kind.trouble && <span className="block text-risky">{kind.trouble}</span>}
              </td>
              <td className="figure py-2">{kind.waiting}</td>
              <td className="figure py-2">{kind.running}</td>
              <td className="figure py-2">{kind.waiting ? `${kind.seconds} s` : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
