import { useMutation, useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";

import { alignFaces, prepareAlike, setOneSize, sizesQuery, type Run } from "../../api/runQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { DialogFrame } from "../../ui/DialogFrame";
import { Problem } from "../../ui/Trouble";
import type { RunHandle } from "./useRun";

interface Props {
  workspace: string;
  run: Run;
  handle: RunHandle;
}

/** What makes a series look made of one piece: one size for words, faces alike. */
export function AlikeDialog(props: Props) {
  const [open, setOpen] = useState(false);
  const { fields } = props.run;
  if (!fields.some(({ kind }) => kind === "words" || kind === "picture")) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button type="button" className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
          Rows alike
        </button>
      </Dialog.Trigger>
      {open && (
        <DialogFrame title="What is alike in all rows">
          {fields
            .filter(({ kind }) => kind === "words")
            .map((field) => (
              <Sizes key={field.name} {...props} name={field.name} part={field.part} />
            ))}
          {fields
            .filter(({ kind }) => kind === "picture")
            .map((field) => (
              <Faces key={field.name} {...props} name={field.name} />
            ))}
          {fields
            .filter(({ kind }) => kind === "picture" || kind === "mark")
            .map((field) => (
              <Prepared key={field.name} {...props} name={field.name} />
            ))}
        </DialogFrame>
      )}
    </Dialog.Root>
  );
}

/** The sizes that words of a field have over all rows, and one size for all of them. */
function Sizes({ workspace, run, handle, name, part }: Props & { name: string; part: string }) {
  const stamp = `${run.revision}/${run.piece_revision}/${run.looking}`;
  const sizes = useQuery(sizesQuery(workspace, run.piece, stamp));
  const set = useMutation({
    mutationFn: (on: boolean) => setOneSize(workspace, run.piece, part, on),
    onSuccess: handle.take,
  });
  const own = sizes.data?.filter((one) => one.part === part) ?? [];
  const common = own.some((one) => one.common);
  return (
    <section aria-label={name} className="border-b border-hairline py-3 text-[13px]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h3 className="text-[14px]">{name}: size of the words</h3>
        <span className="ml-auto flex flex-wrap gap-2">
          <Button look={common ? "quiet" : "plain"} disabled={set.isPending} onClick={() => set.mutate(true)}>
            {common ? "Work the one size out again" : "One size for all rows"}
          </Button>
          {common && (
            <Button look="quiet" disabled={set.isPending} onClick={() => set.mutate(false)}>
              Each row its own
            </Button>
          )}
        </span>
      </div>
      {set.error && <Problem message={set.error.message} />}
      <ul>
        {own.map((one) => (
          <li key={one.placement} className="grid grid-cols-[minmax(0,14rem)_1fr] gap-3 pt-1">
            <span className="text-soft">
              {run.places.find((place) => place.placement === one.placement)?.name}
            </span>
            <span>
              <span className="figure text-measure">{range(one.smallest, one.largest)}</span>
              {one.largest - one.smallest >= 1 && ` · smallest in row ${numberOf(run, one.row)}`}
            </span>
          </li>
        ))}
      </ul>
      {run.looking && <p className="pt-1 text-soft">Rows are still being looked at.</p>}
    </section>
  );
}

/** Faces of one height with their eyes on one line, by calculation. */
function Faces({ workspace, run, handle, name }: Props & { name: string }) {
  const align = useMutation({
    mutationFn: (on: boolean) => alignFaces(workspace, run.piece, name, on),
    onSuccess: (found) => handle.take(found.run),
  });
  const found = align.data;
  return (
    <section aria-label={name} className="py-3 text-[13px]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h3 className="text-[14px]">{name}: faces</h3>
        <span className="ml-auto flex flex-wrap gap-2">
          <Button disabled={align.isPending} onClick={() => align.mutate(true)}>
            One height, eyes on one line
          </Button>
          <Button look="quiet" disabled={align.isPending} onClick={() => align.mutate(false)}>
            As they are fitted
          </Button>
        </span>
      </div>
      {align.error && <Problem message={align.error.message} />}
      {found && found.aligned > 0 && (
        <p role="status" className="pt-1">
          {plural(found.aligned, "face", "faces")}{" "}
          <span className="figure text-measure">{Math.round(100 * found.share)} %</span> of the frame high,
          eyes at <span className="figure text-measure">{Math.round(100 * found.eye_line)} %</span> from its
          top.
          {found.without > 0 && ` ${plural(found.without, "picture has", "pictures have")} none.`}
        </p>
      )}
      <p className="pt-1 text-soft">Counts for the pictures that the rows have now, and can be undone.</p>
    </section>
  );
}

/** Pictures of all rows prepared as one of them is. */
function Prepared({ workspace, run, handle, name }: Props & { name: string }) {
  const rows = run.rows.filter((row) => !row.put_away && row.cells?.[name]);
  const [row, setRow] = useState(rows[0]?.id ?? "");
  const prepare = useMutation({
    mutationFn: () => prepareAlike(workspace, run.piece, name, row),
    onSuccess: () => handle.forget(),
  });
  if (!rows.length) return null;
  const found = prepare.data;
  return (
    <section aria-label={`${name}, prepared`} className="border-t border-hairline py-3 text-[13px]">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h3 className="text-[14px]">{name}: prepared alike</h3>
        <span className="ml-auto flex flex-wrap items-baseline gap-3">
          <label className="flex items-baseline gap-2">
            <span className="text-soft">like the one of</span>
            <select
              value={row}
              onChange={(event) => setRow(event.target.value)}
              className="min-h-8 border-b border-ink bg-transparent [&>option]:bg-sheet"
            >
              {rows.map((one) => (
                <option key={one.id} value={one.id}>
                  row {numberOf(run, one.id)}
                </option>
              ))}
            </select>
          </label>
          <Button disabled={prepare.isPending} onClick={() => prepare.mutate()}>
            Prepare all like it
          </Button>
        </span>
      </div>
      {prepare.error && <Problem message={prepare.error.message} />}
      {found && (
        <p role="status" className="pt-1">
          {found.prepared > 0
            ? `${plural(found.prepared, "picture is", "pictures are")} being prepared.`
            : "They are prepared like it already."}
        </p>
      )}
      <p className="pt-1 text-soft">
        Cut out, edges, margins, light and colours are taken over, wherever these pictures stand.
      </p>
    </section>
  );
}

function range(smallest: number, largest: number): string {
  const [from, to] = [Math.round(smallest), Math.round(largest)];
  return from === to ? `${from} px` : `${from} to ${to} px`;
}

function numberOf(run: Run, row: string): number {
  return run.rows.findIndex((one) => one.id === row) + 1;
}
