import { useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";

import { nameFields, type PossibleField, type Run } from "../../api/runQueries";
import { Button } from "../../ui/Button";
import { DialogFrame } from "../../ui/DialogFrame";
import { Problem } from "../../ui/Trouble";
import type { RunHandle } from "./useRun";

interface Props {
  workspace: string;
  run: Run;
  handle: RunHandle;
}

const KINDS: Record<PossibleField["kind"], string> = {
  words: "what it says",
  picture: "which picture",
  mark: "which mark",
  colour: "its colour",
  shown: "whether it shows",
  number: "a number",
};

/** What rows change: the fields of the piece, and everything that could be one. */
export function FieldsDialog(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
          What rows change
        </button>
      </Dialog.Trigger>
      {open && <Fields {...props} close={() => setOpen(false)} />}
    </Dialog.Root>
  );
}

function Fields({ workspace, run, handle, close }: Props & { close: () => void }) {
  const [fields, setFields] = useState(run.possible);
  const save = useMutation({
    mutationFn: () => nameFields(workspace, run, fields),
    onSuccess: (newest) => {
      handle.take(newest);
      close();
    },
  });
  const change = (at: number, more: Partial<PossibleField>) =>
    setFields(fields.map((field, other) => (other === at ? { ...field, ...more } : field)));
  return (
    <DialogFrame
      title="What rows change"
      foot={
        <>
          {save.error && <Problem message={save.error.message} />}
          <Button look="next" disabled={save.isPending} onClick={() => save.mutate()}>
            Keep these fields
          </Button>
        </>
      }
    >
      <p className="text-[13px] text-soft">
        Each field is a column. What is no field is the same in all rows; cells of a field that is taken out
        are kept.
      </p>
      <ul className="native-dark mt-3 text-[13px]">
        {fields.map((field, at) => (
          <li
            key={`${field.part}.${field.field}`}
            className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline py-1.5"
          >
            <label className="flex min-w-64 flex-1 items-baseline gap-2.5">
              <input
                type="checkbox"
                checked={field.named}
                onChange={(event) => change(at, { named: event.target.checked })}
                className="size-4 translate-y-0.5 accent-(--measure)"
              />
              <span>
                <b className="font-semibold">{field.of}</b>
                <span className="text-soft">, {KINDS[field.kind]}</span>
              </span>
            </label>
            {field.named && (
              <>
                <label className="flex items-baseline gap-2">
                  <span className="text-soft">called</span>
                  <input
                    value={field.name}
                    onChange={(event) => change(at, { name: event.target.value })}
                    className="figure min-h-6 w-36 border-b border-ink bg-transparent"
                  />
                </label>
                {field.kind === "words" && <Counting field={field} change={(more) => change(at, more)} />}
              </>
            )}
          </li>
        ))}
      </ul>
    </DialogFrame>
  );
}

const COUNTING = { before: "", start: 1, step: 1, digits: 1, after: "" };

/** Whether empty cells count rows, and how: with what before, from which number on, with how many digits. */
function Counting({
  field,
  change,
}: {
  field: PossibleField;
  change: (more: Partial<PossibleField>) => void;
}) {
  const { counter } = field;
  const set = (more: Partial<typeof COUNTING>) =>
    change({ counter: { ...COUNTING, ...(counter ?? {}), ...more } });
  return (
    <span className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <label className="flex items-baseline gap-2">
        <input
          type="checkbox"
          checked={counter !== null}
          onChange={(event) => change({ counter: event.target.checked ? COUNTING : null })}
          className="size-4 translate-y-0.5 accent-(--measure)"
        />
        <span>counts rows</span>
      </label>
      {counter && (
        <>
          <Small label="before" value={counter.before ?? ""} set={(before) => set({ before })} />
          <Small
            label="from"
            value={String(counter.start ?? 1)}
            set={(start) => set({ start: Math.max(0, parseInt(start, 10) || 0) })}
          />
          <Small
            label="digits"
            value={String(counter.digits ?? 1)}
            set={(digits) => set({ digits: Math.min(9, Math.max(1, parseInt(digits, 10) || 1)) })}
          />
          <Small label="after" value={counter.after ?? ""} set={(after) => set({ after })} />
        </>
      )}
    </span>
  );
}

function Small({ label, value, set }: { label: string; value: string; set: (value: string) => void }) {
  return (
    <label className="flex items-baseline gap-1.5">
      <span className="text-soft">{label}</span>
      <input
        value={value}
        onChange={(event) => set(event.target.value)}
        className="figure min-h-6 w-14 border-b border-ink bg-transparent"
      />
    </label>
  );
}
