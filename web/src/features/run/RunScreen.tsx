import { useMemo, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import { filesToCome, type Run } from "../../api/runQueries";
import { artworkQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { DropZone } from "../../ui/DropZone";
import { HistoryStep } from "../../ui/HistoryStep";
import { Notice, Problem, Trouble } from "../../ui/Trouble";
import { useWindowWidth } from "../../ui/useWindow";
import { useHistoryKeys } from "../../ui/useHistoryKeys";
import { AlikeDialog } from "./AlikeDialog";
import { Clashes } from "./Clashes";
import { Files } from "./Files";
import { Finding, matching, type Only } from "./Finding";
import { FieldsDialog } from "./FieldsDialog";
import { HandOn } from "./HandOn";
import { RunTable } from "./RunTable";
import { TablesMenu } from "./TablesMenu";
import { useRun, type RunHandle } from "./useRun";
import { useRunActions } from "./useRunActions";

const MOST_PLACES = 3;
const NARROW_PX = 640;
const TABLES = /\.(csv|tsv|xlsx)$/i;

/** A run: a row for each episode of a series, seen in all its places. */
export function RunScreen() {
  const { workspace = "", piece = "" } = useParams();
  const handle = useRun(workspace, piece);
  if (handle.error && !handle.run) return <Trouble error={handle.error} />;
  if (!handle.run) return <main aria-busy className="px-7 py-10" />;
  return <Loaded workspace={workspace} run={handle.run} handle={handle} />;
}

interface Props {
  workspace: string;
  run: Run;
  handle: RunHandle;
}

function Loaded({ workspace, run, handle }: Props) {
  const actions = useRunActions(workspace, run.piece, handle);
  const [chosen, setChosen] = useState<Set<string>>(new Set());
  const [words, setWords] = useState("");
  const [only, setOnly] = useState<Only>("all");
  const [place, setPlace] = useState("");
  const artwork = useQuery(artworkQuery(workspace));
  useHistoryKeys(
    () => run.undo && handle.undo.mutate(),
    () => run.redo && handle.redo.mutate(),
  );
  const rows = useMemo(() => matching(run, words, only), [run, words, only]);
  const most = useWindowWidth() < NARROW_PX ? 1 : MOST_PLACES;
  const places = place ? run.places.filter((one) => one.placement === place) : run.places.slice(0, most);
  const trouble = handle.trouble ?? actions.trouble;
  const pictures = run.fields.find((field) => field.kind === "picture" || field.kind === "mark");
  const readTable = (files: File[]) => {
    const table = files.find((file) => TABLES.test(file.name));
    if (table) actions.read(table);
    return Boolean(table);
  };
  const there = [...chosen].filter((row) => run.rows.some((one) => one.id === row));
  return (
    <DropZone
      targets={pictures ? [`row/${run.piece}/${pictures.name}`] : []}
      over="bg-sheet"
      className="min-h-[80vh]"
      instead={readTable}
    >
      <main className="px-7 pt-3 pb-4">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <div>
            <h1 className="text-[22px] leading-8">{run.subject}, row by row</h1>
            <p role="status" className="text-[13px] text-soft">
              {sentence(run)}
            </p>
          </div>
          <Files workspace={workspace} run={run} actions={actions} chosen={there} />
        </div>
        {trouble && (
          <div className="mt-3">
            <Problem
              message={trouble.message}
              onDismiss={() => {
                handle.forget();
                actions.forget();
              }}
            />
          </div>
        )}
        <Clashes run={run} handle={handle} actions={actions} />
        {actions.came && actions.came.left_over.length > 0 && (
          <div className="mt-3">
            <Notice words={`${leftOver(actions.came.left_over)} no field of this piece, and was left out.`} />
          </div>
        )}
        <div className="mt-3 mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-hairline pt-2">
          <Finding run={run} words={words} find={setWords} only={only} choose={setOnly} />
          {run.places.length > 1 && (
            <label className="flex items-baseline gap-2 text-[13px]">
              <span className="text-soft">Seen in</span>
              <select
                value={place}
                onChange={(event) => setPlace(event.target.value)}
                className="min-h-7 max-w-48 border-b border-ink bg-transparent [&>option]:bg-sheet"
              >
                <option value="">
                  {run.places.length > most
                    ? most === 1
                      ? "the first place"
                      : `the first ${most} of ${run.places.length} places`
                    : "all places"}
                </option>
                {run.places.map((one) => (
                  <option key={one.placement} value={one.placement}>
                    {one.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <div className="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1">
            <HistoryStep way="Undo" step={run.undo} press={() => handle.undo.mutate()} />
            <HistoryStep way="Redo" step={run.redo} press={() => handle.redo.mutate()} />
            {run.may_change && (
              <>
                <FieldsDialog workspace={workspace} run={run} handle={handle} />
                <AlikeDialog workspace={workspace} run={run} handle={handle} />
              </>
            )}
            {run.may_change && <HandOn workspace={workspace} run={run} />}
            <TablesMenu workspace={workspace} run={run} actions={actions} />
            <Button onClick={() => actions.addRow(null)}>Add a row</Button>
          </div>
        </div>
        <RunTable
          workspace={workspace}
          run={run}
          rows={rows}
          places={places}
          chosen={chosen}
          choose={setChosen}
          actions={actions.deeds}
        />
        <datalist id="run-pictures">
          {artwork.data?.map((one) => (
            <option key={one.id} value={one.name} />
          ))}
        </datalist>
        <p className="pt-2 text-[13px] text-soft">
          Type into a cell, paste cells from a spreadsheet, or drop a CSV or XLSX file.{" "}
          {pictures && "Drop pictures on a cell, or beside the table for a row each. "}
          {run.may_change && run.places[0] && (
            <Link
              to={`/w/${workspace}/fits/${run.places[0].fit}`}
              className="font-semibold text-measure hover:underline"
            >
              Change the piece itself
            </Link>
          )}
        </p>
      </main>
    </DropZone>
  );
}

function sentence(run: Run): string {
  const kept = run.rows.filter((row) => !row.put_away).length;
  const rows = `${plural(kept, "row", "rows")} in ${plural(run.places.length, "place", "places")}`;
  const to_come = filesToCome(run);
  if (to_come > 0) return `${rows}. ${run.progress.done} of ${run.progress.wanted} files are made.`;
  const wrong = new Set(run.problems.map((one) => one.row)).size;
  const found = wrong
    ? `${plural(wrong, "row needs", "rows need")} a look.`
    : run.looking
      ? "They are being looked at."
      : "Nothing is found against any of them.";
  return `${rows}. ${found}`;
}

function leftOver(headings: string[]): string {
  const named = headings.map((one) => `“${one}”`).join(", ");
  return headings.length === 1 ? `The column ${named} is` : `The columns ${named} are`;
}
