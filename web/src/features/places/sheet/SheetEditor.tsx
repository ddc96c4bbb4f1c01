import { useState, type ReactNode } from "react";

import { useHistoryKeys } from "../../../ui/useHistoryKeys";
import { SeenSizes } from "../SeenSizes";
import { DrawnSheet } from "./DrawnSheet";
import { ASKED, FIELDS, SEEN, type Key } from "./keys";
import { SheetRow } from "./SheetRow";
import type { Draft } from "./useDraft";

const nothing = () => undefined;

interface Props {
  draft: Draft;
  /** Whether the drawing has the room of a whole screen. */
  large?: boolean;
}

/** A sheet that is changed where it stands: its drawing by dragging, each demand by what it is made of. */
export function SheetEditor({ draft, large }: Props) {
  const [open, setOpen] = useState<Key | null>(null);
  const [zone, setZone] = useState<string | null>(null);
  useHistoryKeys(draft.undo, nothing);
  const chooseZone = (next: string | null) => {
    setZone(next);
    if (next) setOpen(next.startsWith("windows") ? "windows" : "covered");
  };
  return (
    <div className="flex flex-wrap gap-x-10 gap-y-6">
      <DrawnSheet draft={draft} large={large} zone={zone} chooseZone={chooseZone} />
      <div className="grid min-w-0 flex-1 basis-[260px] grid-cols-[minmax(0,1fr)] content-start gap-5 text-[14px]">
        <Group title="Asked">
          <Rows keys={ASKED} draft={draft} open={open} setOpen={setOpen} />
        </Group>
        <Group title="Seen">
          <Rows keys={SEEN} draft={draft} open={open} setOpen={setOpen} />
        </Group>
        {draft.shown.seen.length > 0 && <SeenSizes sheet={draft.shown} />}
      </div>
    </div>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="border-b border-strong pb-1 text-[14px]">{title}</h2>
      {children}
    </section>
  );
}

interface RowsProps {
  keys: readonly Key[];
  draft: Draft;
  open: Key | null;
  setOpen: (key: Key | null) => void;
}

/** What the sheet says, a row each; what it does not say can be said as well. */
function Rows({ keys, draft, open, setOpen }: RowsProps) {
  const lines = (key: Key) => draft.shown.sentences.filter((one) => one.key === key).map((one) => one.text);
  const said = (key: Key) => draft.contradictions.filter((one) => one.keys[0] === key);
  const shows = (key: Key) => key === open || lines(key).length > 0 || said(key).length > 0;
  const silent = keys.filter((key) => !shows(key));
  return (
    <>
      <ul>
        {keys.filter(shows).map((key) => (
          <SheetRow
            key={key}
            title={FIELDS[key].title}
            lines={lines(key)}
            said={said(key)}
            open={open === key}
            setOpen={(next) => setOpen(next ? key : null)}
            set={draft.set}
          >
            {FIELDS[key].fields(draft)}
          </SheetRow>
        ))}
      </ul>
      {silent.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3 pt-1 text-[13px] text-soft">
          Says nothing of
          {silent.map((key) => (
            <button
              key={key}
              type="button"
              onClick={() => setOpen(key)}
              className="min-h-6 text-measure hover:underline"
            >
              {FIELDS[key].title.toLowerCase()}
            </button>
          ))}
        </p>
      )}
    </>
  );
}
