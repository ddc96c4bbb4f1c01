import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { rulePageQuery } from "../../api/placeQueries";

/** How a finding is measured, where that comes from, and what it cannot tell: opened where it is read. */
export function RulePage({ rule }: { rule: string }) {
  const [open, setOpen] = useState(false);
  const page = useQuery({ ...rulePageQuery(rule), enabled: open }).data ?? [];
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="mt-1 block min-h-6 text-[12px] text-soft hover:text-ink hover:underline"
      >
        How it is measured
      </button>
      {open && (
        <dl className="border-l-2 border-hairline pl-3 text-[12px] leading-[17px]">
          {page.map(({ title, text }) => (
            <div key={title} className="pb-1.5">
              {title && <dt className="font-semibold">{title}</dt>}
              <dd>{plain(text)}</dd>
            </div>
          ))}
        </dl>
      )}
    </>
  );
}

/** Without the marks of links: the pages are written for readers of the documentation too. */
const plain = (text: string) => text.replace(/\[([^\]]*)\]\([^)]*\)/g, "$1");
