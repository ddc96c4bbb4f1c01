import { useState } from "react";

import type { Finding } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import type { Bench } from "./useBench";

type Repair = NonNullable<Finding["repair"]>;

const BARE =
  "mt-1 flex min-h-7 items-baseline gap-2 text-left text-measure hover:underline disabled:opacity-60";

/** What one click can do about a finding: the best way as a button, the others on demand, each with what it comes to. */
export function Repairs({ bench, finding }: { bench: Bench; finding: Finding }) {
  const [open, setOpen] = useState(false);
  const first = finding.repair;
  const others = finding.other_repairs ?? [];
  if (!first) return null;
  const busy = bench.outbox.state !== "saved";
  const run = (repair: Repair) => bench.repair(repair.name, finding.part);
  return (
    <div>
      <Button className="mt-2" disabled={busy} onClick={() => run(first)}>
        {first.label}
      </Button>
      {first.becomes && <Becomes words={first.becomes} />}
      {others.length > 0 && !open && (
        <button type="button" className={BARE} onClick={() => setOpen(true)}>
          {plural(others.length, "other way", "other ways")}
        </button>
      )}
      {open && (
        <ul>
          {others.map((repair) => (
            <li key={repair.name}>
              <button type="button" className={BARE} disabled={busy} onClick={() => run(repair)}>
                <span className="font-semibold">{repair.label}</span>
                {repair.becomes && <Becomes words={repair.becomes} />}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const Becomes = ({ words }: { words: string }) => (
  <span className="ml-2 text-[12px] text-soft tabular-nums">then {words}</span>
);
