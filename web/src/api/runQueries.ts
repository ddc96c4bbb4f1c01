import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, csrfToken, failureOf, type Change, type Schemas } from "./client";

export type Run = Schemas["RunOut"];
export type RunState = Schemas["RunState"];
export type RunField = Schemas["RowField"];
export type PossibleField = Schemas["PossibleField"];
export type RunPlace = Schemas["PlaceOfRows"];
export type Entry = Run["rows"][number];
export type RowChange = Schemas["RowsEdit"]["changes"][number];
export type RowInPlace = Schemas["RowInPlace"];
export type RowProblem = Schemas["RowProblem"];
export type RowsChanged = Schemas["RowsChanged"];

const ADDRESS = "/api/workspaces/{workspace}/pieces/{piece}/run";
const SOON_MS = 1200;
const LATER_MS = 2500;

const at = (workspace: string, piece: string) => ({ params: { path: { workspace, piece } } });

/** A run with all its rows. */
export const runQuery = (workspace: string, piece: string) =>
  queryOptions({
    queryKey: [workspace, "run", piece],
    queryFn: () => answerOf(client.GET(ADDRESS, at(workspace, piece))),
    retry: false,
  });

/** What is said of its rows, asked again and again: soon while something is under way. */
export const runStateQuery = (workspace: string, piece: string) =>
  queryOptions({
    queryKey: [workspace, "run state", piece],
    queryFn: () => answerOf(client.GET(`${ADDRESS}/state`, at(workspace, piece))),
    refetchInterval: (query) => (query.state.data && isUnderWay(query.state.data) ? SOON_MS : LATER_MS),
  });

/** Whether workers look at rows or make files of them. */
export const isUnderWay = (state: RunState) => state.looking || filesToCome(state) > 0;

/** How many files are still to be made. */
export const filesToCome = ({ progress }: RunState) => progress.wanted - progress.done - progress.failed;

/** Rows in their places as they are now; `stamp` changes whenever they may be otherwise. */
export const seenQuery = (workspace: string, piece: string, rows: string[], stamp: string) =>
  queryOptions({
    queryKey: [workspace, "seen rows", piece, stamp, rows],
    queryFn: () =>
      answerOf(
        client.GET(`${ADDRESS}/seen`, {
          params: { path: { workspace, piece }, query: { rows: rows.join(",") } },
        }),
      ),
    staleTime: 60_000,
  });

export const rowProofUrl = (workspace: string, piece: string, seen: RowInPlace, width: number) =>
  `/api/workspaces/${workspace}/pieces/${piece}/run/${seen.row}/${seen.placement}/proof?width=${width}&key=${seen.key}`;

export const tableUrl = (workspace: string, piece: string, format: "csv" | "xlsx") =>
  `/api/workspaces/${workspace}/pieces/${piece}/run/table?format=${format}`;

export const beginRun = (workspace: string, piece: string) =>
  answerOf(client.POST(ADDRESS, at(workspace, piece)));

export const changeRows = (
  workspace: string,
  piece: string,
  changes: RowChange[],
  step: string,
  key: string,
) => answerOf(client.PATCH(ADDRESS, { ...at(workspace, piece), body: { changes, step, key } }));

export const pasteCells = (
  workspace: string,
  piece: string,
  rows: string[],
  fields: string[],
  text: string,
) => answerOf(client.POST(`${ADDRESS}/paste`, { ...at(workspace, piece), body: { rows, fields, text } }));

export const undoRows = (workspace: string, piece: string) =>
  answerOf(client.POST(`${ADDRESS}/undo`, at(workspace, piece)));

export const redoRows = (workspace: string, piece: string) =>
  answerOf(client.POST(`${ADDRESS}/redo`, at(workspace, piece)));

export const nameFiles = (workspace: string, piece: string, rule: string) =>
  answerOf(client.PUT(`${ADDRESS}/naming`, { ...at(workspace, piece), body: { rule } }));

/** Makes these the fields of the piece; what was called otherwise keeps its cells under its old name. */
export async function nameFields(workspace: string, run: Run, fields: PossibleField[]): Promise<Run> {
  const wanted = new Map(fields.filter((field) => field.named).map((field) => [field.name.trim(), field]));
  const gone = run.fields.filter((field) => !wanted.has(field.name));
  const changes: Change[] = [
    ...gone.map((field): Change => ({ act: "name", name: field.name, target: null })),
    ...[...wanted].map(([name, { part, field, counter }]): Change => ({
      act: "name",
      name,
      target: { part, field, counter },
    })),
  ];
  await answerOf(
    client.PATCH("/api/workspaces/{workspace}/pieces/{piece}", {
      ...at(workspace, run.piece),
      body: { revision: run.piece_revision, step: "name what rows change", changes },
    }),
  );
  return answerOf(client.GET(ADDRESS, at(workspace, run.piece)));
}

/** How large words are over all rows, in each place. */
export const sizesQuery = (workspace: string, piece: string, stamp: string) =>
  queryOptions({
    queryKey: [workspace, "row sizes", piece, stamp],
    queryFn: () => answerOf(client.GET(`${ADDRESS}/sizes`, at(workspace, piece))),
    placeholderData: (before) => before,
  });

export const setOneSize = (workspace: string, piece: string, part: string, on: boolean) =>
  answerOf(
    client.PUT(`${ADDRESS}/sizes/{part}`, { params: { path: { workspace, piece, part } }, body: { on } }),
  );

export const alignFaces = (workspace: string, piece: string, field: string, on: boolean) =>
  answerOf(
    client.PUT(`${ADDRESS}/faces/{field}`, { params: { path: { workspace, piece, field } }, body: { on } }),
  );

/** A link by which one person may fill in the rows. */
export const handOn = (workspace: string, piece: string) =>
  answerOf(client.POST(`${ADDRESS}/colleagues`, at(workspace, piece)));

/** What a link lets somebody into. */
export const joiningQuery = (secret: string) =>
  queryOptions({
    queryKey: ["joining", secret],
    queryFn: () => answerOf(client.GET("/api/joining/{secret}", { params: { path: { secret } } })),
    retry: false,
  });

export const joinBy = (secret: string) =>
  answerOf(client.POST("/api/joining/{secret}", { params: { path: { secret } } }));

export const prepareAlike = (workspace: string, piece: string, field: string, row: string) =>
  answerOf(
    client.PUT(`${ADDRESS}/prepared/{field}`, {
      params: { path: { workspace, piece, field } },
      body: { row },
    }),
  );

export const makeFiles = (workspace: string, piece: string, rows: string[] | null) =>
  answerOf(client.POST(`${ADDRESS}/files`, { ...at(workspace, piece), body: { rows } }));

export const stopFiles = (workspace: string, piece: string) =>
  answerOf(client.DELETE(`${ADDRESS}/files`, at(workspace, piece)));

export const deliverRows = (workspace: string, piece: string, rows: string[] | null, changed: boolean) =>
  answerOf(
    client.POST(`${ADDRESS}/deliveries`, {
      ...at(workspace, piece),
      body: { rows, changed, way: "zip", folder: "", flat: false },
    }),
  );

/** The fit of a row in a place, for the bench. */
export const fitOfRow = (workspace: string, piece: string, row: string, placement: string) =>
  answerOf(
    client.POST(`${ADDRESS}/{row}/{placement}/fit`, {
      params: { path: { workspace, piece, row, placement } },
    }),
  );

/** Adds the rows of a table: a file that somebody chose or dropped. */
export async function readTable(workspace: string, piece: string, file: File): Promise<RowsChanged> {
  const form = new FormData();
  form.append("file", file);
  const answer = await fetch(`/api/workspaces/${workspace}/pieces/${piece}/run/table`, {
    method: "POST",
    body: form,
    headers: { "X-CSRFToken": csrfToken() },
  });
  const body: unknown = await answer.json().catch(() => null);
  if (!answer.ok) throw failureOf(answer.status, body);
  return body as RowsChanged;
}
