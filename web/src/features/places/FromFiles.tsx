import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type DragEvent } from "react";
import { useNavigate } from "react-router";

import { addPlace, sheetsOfFiles } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

interface Props {
  workspace: string;
  /** Shows one sheet, to be looked at before it counts. */
  take: (sheet: Schemas["SheetOut"]) => void;
}

/** Takes sheet files, ZIPs of them, and files that a place took. */
export function FromFiles({ workspace, take }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const read = useMutation({
    mutationFn: (files: File[]) => sheetsOfFiles(workspace, files),
    onSuccess: (found) => {
      if (found.length === 1 && found[0]!.shown) take(found[0]!.shown);
    },
  });
  const drop = (event: DragEvent) => {
    event.preventDefault();
    event.stopPropagation();
    setOver(false);
    if (event.dataTransfer.files.length) read.mutate([...event.dataTransfer.files]);
  };
  return (
    <section
      aria-label="From files"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={`mt-5 border border-dashed p-3 text-[14px] ${over ? "border-measure" : "border-hairline"}`}
    >
      <input
        ref={input}
        type="file"
        hidden
        multiple
        aria-label="Sheet files"
        accept=".json,.zip,image/*"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length) read.mutate(files);
        }}
      />
      Or drop a sheet file, a ZIP of them, or a file that the place took.{" "}
      <Button look="bare" disabled={read.isPending} onClick={() => input.current?.click()}>
        Choose files
      </Button>
      {read.error && <Problem message={read.error.message} onDismiss={read.reset} />}
      {read.data && <Found workspace={workspace} found={read.data} take={take} />}
    </section>
  );
}

function Found({ workspace, found, take }: Props & { found: Schemas["TakenOut"][] }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const sheets = found.flatMap((one) => one.shown ?? []);
  const all = useMutation({
    mutationFn: async () => {
      for (const { sheet, name } of sheets)
        await addPlace(workspace, { destination: sheet.destination ?? "", name, sheet });
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: [workspace] });
      await navigate(`/w/${workspace}`);
    },
  });
  return (
    <>
      {found.filter((one) => !one.shown).length > 0 && (
        <ul className="mt-2 max-h-40 overflow-y-auto text-refused">
          {found
            .filter((one) => !one.shown)
            .map((one, number) => (
              <li key={number}>{one.message}</li>
            ))}
        </ul>
      )}
      {sheets.length > 1 && (
        <>
          <ul className="mt-2 max-h-60 overflow-y-auto">
            {sheets.map((shown, number) => (
              <li
                key={number}
                className="flex flex-wrap items-baseline gap-x-3 border-b border-hairline py-0.5"
              >
                <button
                  type="button"
                  className="min-h-6 font-semibold text-measure hover:underline"
                  onClick={() => take(shown)}
                >
                  {shown.name}
                </button>
                <span className="figure text-soft">{shown.short}</span>
              </li>
            ))}
          </ul>
          <Button className="mt-2" disabled={all.isPending} onClick={() => all.mutate()}>
            Put all {plural(sheets.length, "place", "places")} on the wall
          </Button>
          {all.error && <Problem message={all.error.message} onDismiss={all.reset} />}
        </>
      )}
    </>
  );
}
