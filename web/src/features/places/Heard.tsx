import type { ReactNode } from "react";

import type { Schemas } from "../../api/client";

const KEYS: Record<string, string> = {
  name: "its name",
  formats: "which formats it takes",
  grounds: "which colour dark or light is",
  "cut.radius": "how round its corners are",
};

/** What was not made of the words: contradictions, what was not understood, what had to be assumed. */
export function Heard({ read }: { read: Schemas["ReadOut"] }) {
  const assumed = read.assumed.filter((key) => key !== "name").map((key) => KEYS[key] ?? key);
  return (
    <div role="status" className="mt-3 grid gap-1.5 text-[14px]">
      {read.problems.map((one) => (
        <p key={one.message} className="font-semibold text-refused">
          {one.message}
        </p>
      ))}
      {read.not_understood.length > 0 && (
        <Line look="border-risky border-dashed" title="Not understood, and nothing made of it:">
          {read.not_understood.map((one) => `“${one.text}”`).join(", ")}
        </Line>
      )}
      {read.sheet && assumed.length > 0 && (
        <p className="text-soft">The words do not say {assumed.join(" and ")}: that is assumed.</p>
      )}
    </div>
  );
}

function Line({ look, title, children }: { look: string; title: string; children: ReactNode }) {
  return (
    <p>
      <span className={`border-b-2 ${look}`}>{title}</span> {children}
    </p>
  );
}
