import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import type { Schemas } from "../../api/client";
import { sharedFilesQuery } from "../../api/placeQueries";
import { plural } from "../../measure/words";
import { Problem } from "../../ui/Trouble";
import { useSharing } from "../../ui/useSharing";

type Group = Schemas["GroupOut"];

const AT_FIRST = 2; // of those that one file could serve

/** Places that one file serves, or could: joined with one click, parted with another. */
export function SharedFiles({ workspace, stand }: { workspace: string; stand: string }) {
  const groups = useQuery(sharedFilesQuery(workspace, stand)).data ?? [];
  const sharing = useSharing(workspace);
  const [all, setAll] = useState(false);
  const joined = groups.filter((one) => one.joined);
  const possible = groups.filter((one) => !one.joined);
  const shown = [...joined, ...(all ? possible : possible.slice(0, AT_FIRST))];
  const more = joined.length + possible.length - shown.length;
  if (groups.length === 0) return null;
  return (
    <section
      aria-label="One file for several"
      className="mt-6 border-t border-dashed border-strong pt-3 pb-5"
    >
      <h2 className="text-[16px]">One file for several places</h2>
      {sharing.error && <Problem message={sharing.error.message} onDismiss={() => sharing.join.reset()} />}
      <ul className="mt-1 text-[14px]">
        {shown.map((group) => (
          <Row
            key={group.places.map((one) => one.id).join()}
            group={group}
            workspace={workspace}
            sharing={sharing}
          />
        ))}
      </ul>
      {more > 0 && (
        <button
          type="button"
          onClick={() => setAll(true)}
          className="min-h-7 text-[13px] font-semibold text-measure hover:underline"
        >
          {plural(more, "more group", "more groups")} of places that one file could serve
        </button>
      )}
    </section>
  );
}

interface RowProps {
  group: Group;
  workspace: string;
  sharing: ReturnType<typeof useSharing>;
}

function Row({ group, workspace, sharing }: RowProps) {
  const { places, joined, broken, short } = group;
  return (
    <li className="border-b border-hairline py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5">
        <span>
          {places.map((one, number) => (
            <span key={one.id}>
              {number > 0 && (number === places.length - 1 ? " and " : ", ")}
              <Link
                to={`/w/${workspace}/places/${one.id}`}
                title={one.destination}
                className="font-semibold hover:underline"
              >
                {one.name}
              </Link>
              {joined && (
                <button
                  type="button"
                  disabled={sharing.busy}
                  aria-label={`${one.name}: a file of its own`}
                  onClick={() => sharing.part.mutate(one.id)}
                  className="ml-1 min-h-6 text-[12px] text-measure hover:underline"
                >
                  own file
                </button>
              )}
            </span>
          ))}
        </span>
        <span className="figure text-soft">{short}</span>
        {!joined && <Join group={group} sharing={sharing} />}
        {joined && !broken && <span className="text-[13px] text-fits">one file now</span>}
      </div>
      {broken && (
        <p className="text-[13px] font-semibold text-risky">
          One file no longer serves them; each has its own for now. {broken}
        </p>
      )}
    </li>
  );
}

/** One click lets what stands in one of them stand in all; where several are filled, each of them can. */
function Join({ group, sharing }: { group: Group; sharing: RowProps["sharing"] }) {
  const ids = group.places.map((one) => one.id);
  const filled = group.places.filter((one) => one.subject);
  const subjects = [...new Set(filled.map((one) => one.subject))];
  const leaders = subjects.map((subject) => filled.find((one) => one.subject === subject)!);
  const them = ids.length === 2 ? "both" : `all ${ids.length}`;
  const ways = leaders.length > 1 ? leaders : [leaders[0] ?? group.places[0]!];
  return (
    <span className="flex flex-wrap gap-x-4">
      {ways.map((leader) => (
        <button
          key={leader.id}
          type="button"
          disabled={sharing.busy}
          onClick={() => sharing.join.mutate({ places: ids, leader: leader.id })}
          className="min-h-6 text-[13px] font-semibold text-measure hover:underline"
        >
          {leaders.length > 1 ? `Use ${leader.subject} for ${them}` : `One file for ${them}`}
        </button>
      ))}
    </span>
  );
}
