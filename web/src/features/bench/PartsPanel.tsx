import { useDeferredValue } from "react";
import {
  Eye,
  EyeOff,
  Image,
  Lock,
  LockOpen,
  Shapes,
  Square,
  Stamp,
  Type,
  type LucideIcon,
} from "lucide-react";

import type { DocumentPart, FitOut } from "../../api/client";
import { AddPart } from "./AddPart";
import { Arranging } from "./Arranging";
import { ArtworkFields } from "./fields/ArtworkFields";
import { GroundFields } from "./fields/GroundFields";
import { ShapeFields } from "./fields/ShapeFields";
import { WordsFields } from "./fields/WordsFields";
import { Choice } from "../../ui/fields";
import { PartFigures } from "./fields/PartFigures";
import { Several } from "./Several";
import { partHere } from "./stage/parts";
import type { Bench } from "./useBench";
import { isTyping } from "../../ui/isTyping";
import { Button } from "../../ui/Button";

/** The parts, front to back; the row of a selected part opens in place. */
export function PartsPanel({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const parts = [...fit.piece.document.parts].reverse();
  const count = bench.selection.ids.length;
  // Many fields open with a part: a drag that begins with selecting it must not wait for them.
  const open = useDeferredValue(count === 1 ? bench.selection.ids[0] : undefined);
  return (
    <section aria-labelledby="parts">
      <h2 id="parts" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Parts, front to back
      </h2>
      {count > 1 && <Several bench={bench} fit={fit} />}
      <ul>
        {parts.map((part) => (
          <Row key={part.id} bench={bench} fit={fit} part={part} open={part.id === open} />
        ))}
      </ul>
      <AddPart bench={bench} />
      <Scope bench={bench} fit={fit} />
    </section>
  );
}

const SYMBOLS: Record<DocumentPart["role"], LucideIcon> = {
  ground: Square,
  picture: Image,
  mark: Stamp,
  headline: Type,
  "second line": Type,
  byline: Type,
  badge: Type,
  shape: Shapes,
};

interface RowProps {
  bench: Bench;
  fit: FitOut;
  part: DocumentPart;
  open: boolean;
}

function Row({ bench, fit, part, open }: RowProps) {
  const here = partHere(fit, part);
  const Symbol = SYMBOLS[part.role];
  const selected = bench.selection.has(part.id);
  const own = fit.adjusted.filter((entry) => entry.startsWith(`${part.id}.`));
  const name = fit.names[part.id] ?? part.role;
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  return (
    <li
      className={`border-b border-hairline border-l-2 ${selected ? "border-l-measure bg-sheet" : "border-l-transparent"}`}
    >
      <div className="flex items-center gap-1 py-1.5 pr-1 pl-2.5">
        <button
          type="button"
          aria-expanded={open}
          onClick={(event) =>
            event.shiftKey ? bench.selection.toggle(part.id) : bench.selection.select(open ? [] : [part.id])
          }
          className="flex min-w-0 flex-1 items-center gap-2.5 text-left"
        >
          <Symbol
            aria-hidden
            size={15}
            className={`shrink-0 ${here.hidden ? "text-soft/50" : "text-soft"}`}
          />
          <span className="min-w-0">
            <span
              className={`block truncate text-[13px] font-semibold ${here.hidden ? "text-soft line-through" : ""}`}
            >
              {part.role === "ground" ? "Ground" : name}
            </span>
            <span className="block text-[12px] text-soft">
              {part.role === "ground" ? groundWords(fit, here) : part.role}
              <Stance fit={fit} part={part.id} />
              {own.length > 0 && <span className="text-measure"> · {own.length} only here</span>}
            </span>
          </span>
        </button>
        <Toggle
          on={Boolean(here.hidden)}
          words={here.hidden ? `Show ${name}` : `Hide ${name}`}
          symbol={here.hidden ? EyeOff : Eye}
          press={() => set(here.hidden ? "show" : "hide", "hidden", !here.hidden)}
        />
        <Toggle
          on={Boolean(here.locked)}
          words={here.locked ? `Unlock ${name}` : `Lock ${name}`}
          symbol={here.locked ? Lock : LockOpen}
          press={() => set(here.locked ? "unlock" : "lock", "locked", !here.locked)}
        />
      </div>
      {open && (
        <div
          className="pr-2 pb-3 pl-2.5"
          onKeyDown={(event) => isTyping(event.target) && event.stopPropagation()}
        >
          <Fields bench={bench} fit={fit} part={here} />
          {own.length > 0 && (
            <Button look="bare" className="mt-1 min-h-6 text-[12px]" onClick={() => bench.takeBack(own)}>
              Take back what differs here
            </Button>
          )}
        </div>
      )}
    </li>
  );
}

function Fields({ bench, fit, part }: { bench: Bench; fit: FitOut; part: DocumentPart }) {
  if (part.role === "ground") return <GroundFields bench={bench} fit={fit} part={part} />;
  const placed = fit.parts.find((entry) => entry.part === part.id);
  return (
    <>
      {(part.role === "picture" || part.role === "mark") && (
        <ArtworkFields bench={bench} fit={fit} part={part} placed={placed} />
      )}
      {part.role === "shape" && <ShapeFields bench={bench} fit={fit} part={part} />}
      {"text" in part && <WordsFields bench={bench} fit={fit} part={part} placed={placed} />}
      <PartFigures bench={bench} fit={fit} part={part} placed={placed} />
    </>
  );
}

function groundWords(fit: FitOut, part: DocumentPart): string {
  const fill = part.role === "ground" ? part.fill : null;
  if (fit.ground_given && !fill) return `${fit.ground}, given because none is transparent here`;
  if (!fill) return "clear";
  return fill.kind === "solid" ? fill.colour : fill.kind;
}

function Toggle({
  on,
  words,
  symbol: Symbol,
  press,
}: {
  on: boolean;
  words: string;
  symbol: LucideIcon;
  press: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={words}
      title={words}
      onClick={press}
      className={`flex size-6 shrink-0 items-center justify-center ${on ? "text-ink" : "text-soft/50 hover:text-ink"}`}
    >
      <Symbol aria-hidden size={14} />
    </button>
  );
}

/** Whether somebody put the part where it stands here, where all others are arranged by calculation. */
function Stance({ fit, part }: { fit: FitOut; part: string }) {
  const placed = fit.parts.find((entry) => entry.part === part);
  return fit.arranged && placed?.stance === "by hand" ? <span> · by hand</span> : null;
}

function Scope({ bench, fit }: { bench: Bench; fit: FitOut }) {
  // Where parts stand by hand in an arranged place is said, and let go, below.
  const others = fit.arranged ? fit.adjusted.filter((entry) => !fit.by_hand.includes(entry)) : fit.adjusted;
  const count = others.length;
  return (
    <div className="pt-2 pl-3">
      <Choice
        label="Changes"
        options={[
          ["everywhere", "everywhere"],
          ["here", "only here"],
        ]}
        value={bench.everywhere ? "everywhere" : "here"}
        choose={(scope) => bench.setEverywhere(scope === "everywhere")}
      />
      {count > 0 && (
        <p className="mt-2 text-[12px] text-soft">
          <span className="text-measure">
            {count} {count === 1 ? "adjustment" : "adjustments"} only here.
          </span>{" "}
          <Button look="bare" className="min-h-6 text-[12px]" onClick={() => bench.takeBack(others)}>
            Take back
          </Button>
        </p>
      )}
      <Arranging bench={bench} fit={fit} />
    </div>
  );
}
