import { useRef, type KeyboardEvent, type ReactNode } from "react";

import type { Schemas } from "../../../api/client";
import type { Patch } from "./useDraft";

interface Props {
  title: string;
  lines: string[];
  said: Schemas["ContradictionOut"][];
  open: boolean;
  setOpen: (open: boolean) => void;
  set: (patch: Patch) => void;
  children: ReactNode;
}

/** One demand in words; opened, what it is made of. What cannot be is said under it, with what would resolve it. */
export function SheetRow({ title, lines, said, open, setOpen, set, children }: Props) {
  const opener = useRef<HTMLButtonElement>(null);
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== "Escape" || event.defaultPrevented) return;
    setOpen(false);
    opener.current?.focus();
  };
  return (
    <li className={`border-b border-hairline ${open ? "bg-[var(--measure-faint)] px-2 pb-2" : ""}`}>
      <button
        ref={opener}
        type="button"
        aria-expanded={open}
        aria-label={`${title}: ${lines.join(" ") || "nothing said"}`}
        onClick={() => setOpen(!open)}
        className="group flex min-h-7 w-full items-baseline gap-3 py-0.5 text-left"
      >
        <span className="min-w-0 flex-1">
          {lines.map((line) => (
            <span key={line} className="block">
              {line}
            </span>
          ))}
          {lines.length === 0 && <b>{title}</b>}
        </span>
        <span className="text-[12px] text-measure opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100 group-aria-expanded:opacity-100">
          {open ? "Done" : "Change"}
        </span>
      </button>
      {said.map((one) => (
        <div key={one.message} role="alert" className="mb-1 border-l-2 border-refused pl-2 text-[13px]">
          <p className="font-semibold text-refused">{one.message}</p>
          <p className="flex flex-wrap gap-x-4">
            {one.ways_out.map((way) => (
              <button
                key={way.label}
                type="button"
                onClick={() => set(way.change)}
                className="min-h-6 text-measure hover:underline"
              >
                {way.label}
              </button>
            ))}
          </p>
        </div>
      ))}
      {open && (
        <div role="group" aria-label={title} onKeyDown={onKey} className="grid gap-1">
          {children}
        </div>
      )}
    </li>
  );
}
