import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFns,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";

import { filesToCome, type Entry, type Run, type RunField, type RunPlace } from "../../api/runQueries";
import { STATES } from "../../ui/State";
import { columnsOf, ROW_PX } from "./measures";
import { RunRow } from "./RunRow";
import type { RowDeeds } from "./useRunActions";
import { useGrid, type At } from "./useGrid";
import { useSeen } from "./useSeen";
import { problemsByCell, problemsByPlace } from "./problems";

interface Props {
  workspace: string;
  run: Run;
  rows: Entry[];
  places: RunPlace[];
  chosen: Set<string>;
  choose: (change: (chosen: Set<string>) => Set<string>) => void;
  actions: RowDeeds;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns,
});
const helper = createColumnHelper<typeof features, Entry>();

/** The rows of a run: how each looks in its places, and its cells. */
export function RunTable({ workspace, run, rows, places, chosen, choose, actions }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const toFocus = useRef(false); // the cell that one is at, once it is drawn
  const [active, setActive] = useState(0);
  const columns = useMemo(
    () =>
      helper.columns(
        run.fields.map((field) =>
          helper.accessor((row) => row.cells?.[field.name] ?? "", {
            id: field.name,
            header: field.name,
            sortFn: field.kind === "number" ? "alphanumeric" : "text",
          }),
        ),
      ),
    [run.fields],
  );
  const table = useTable({ features, columns, data: rows });
  const model = table.getRowModel().rows;
  const shown = useMemo(() => model.map((row) => row.original), [model]);
  const ids = useMemo(() => shown.map((row) => row.id), [shown]);
  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives changes with scrolling, and is not kept
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 5,
    scrollPaddingStart: 40,
    rangeExtractor: (range) => withRow(defaultRangeExtractor(range), active, shown.length), // it keeps the focus
  });
  const items = virtual.getVirtualItems();
  const stamp = `${run.revision}/${run.piece_revision}/${run.progress.done}`;
  const seen = useSeen(
    workspace,
    run.piece,
    ids,
    virtual.range?.startIndex ?? 0,
    virtual.range?.endIndex ?? 0,
    stamp,
  );
  const numbers = useMemo(() => new Map(run.rows.map((row, at) => [row.id, at])), [run.rows]);
  const byPlace = useMemo(() => problemsByPlace(run.problems), [run.problems]);
  const byCell = useMemo(() => problemsByCell(run.problems), [run.problems]);
  const fieldAt = (at: number) => run.fields[at];
  const rowAt = (at: number) => shown[at];
  const textAt = ({ row, field }: At) => rowAt(row)?.cells?.[fieldAt(field)?.name ?? ""] ?? "";
  const grid = useGrid({
    rows: shown.length,
    fields: run.fields.length,
    textAt,
    write: (cells, step) =>
      actions.writeCells(
        cells.flatMap(({ at, text }) => {
          const row = rowAt(at.row);
          const field = fieldAt(at.field);
          return row && field ? [{ row: row.id, field: field.name, text, had: textAt(at) }] : [];
        }),
        step,
      ),
    paste: (at, text) =>
      actions.paste(
        ids.slice(at.row),
        run.fields.slice(at.field).map((field) => field.name),
        text,
      ),
    show: (row) => {
      setActive(row);
      virtual.scrollToIndex(row);
      toFocus.current = true;
    },
    switched: (field) => fieldAt(field)?.kind === "shown",
  });
  useLayoutEffect(() => {
    if (grid.typed !== null || !toFocus.current) return;
    const cell = scroller.current?.querySelector<HTMLElement>(
      `[data-cell="${grid.at.row} ${grid.at.field}"]`,
    );
    cell?.focus({ preventScroll: true });
    toFocus.current = !cell;
  }, [grid.at.row, grid.at.field, grid.typed, items]);

  const toggle = useCallback((row: string) => choose((now) => toggled(now, row)), [choose]);
  const template = columnsOf(places, run.fields);
  const coming = filesToCome(run) > 0;
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Rows"
      aria-rowcount={shown.length + 1}
      aria-multiselectable
      onKeyDown={grid.onKeyDown}
      onPaste={grid.onPaste}
      onCopy={grid.onCopy}
      className="native-dark relative max-h-[calc(100dvh-236px)] min-h-64 overflow-auto border-b-2 border-strong"
    >
      <div style={{ minWidth: "min-content" }}>
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 grid border-b-2 border-strong bg-paper"
          style={{ gridTemplateColumns: template }}
        >
          <div role="columnheader" className="flex items-end px-2 pb-1">
            <input
              type="checkbox"
              aria-label="Choose all rows that are shown"
              checked={shown.length > 0 && chosen.size >= shown.length}
              onChange={() => choose((now) => (now.size >= shown.length ? new Set() : new Set(ids)))}
              className="size-4 accent-(--measure)"
            />
          </div>
          {places.map((place) => (
            <div key={place.placement} role="columnheader" className="flex flex-col justify-end px-2 pb-1">
              <span className="block truncate text-[12px] font-semibold" title={place.name}>
                {place.name}
              </span>
              <span className="figure block text-measure">
                {place.width} × {place.height}
              </span>
              {run.alike.includes(place.placement) && (
                <span className="flex items-start gap-1 text-[12px] leading-[14px] text-risky">
                  <STATES.risky.symbol aria-hidden size={12} strokeWidth={2.6} className="shrink-0" />
                  alike in all rows
                </span>
              )}
            </div>
          ))}
          {table.getHeaderGroups()[0]?.headers.map((header, at) => (
            <FieldHead
              key={header.id}
              field={run.fields[at]}
              sorted={header.column.getIsSorted()}
              press={header.column.getToggleSortingHandler()}
            />
          ))}
        </div>
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const row = rowAt(item.index);
            if (!row) return null;
            return (
              <RunRow
                key={row.id}
                workspace={workspace}
                run={run}
                row={row}
                index={item.index}
                number={(numbers.get(row.id) ?? 0) + 1}
                top={item.start}
                template={template}
                places={places}
                seen={seen}
                byPlace={byPlace}
                byCell={byCell}
                coming={coming}
                chosen={chosen.has(row.id)}
                choose={toggle}
                {...grid.inRow(item.index)}
                deeds={grid.deeds}
                actions={actions}
              />
            );
          })}
        </div>
      </div>
    </div>
  );
}

interface FieldHeadProps {
  field: RunField | undefined;
  sorted: false | "asc" | "desc";
  press: ((event: unknown) => void) | undefined;
}

/** The head of a column of cells; pressing it sorts what is shown. */
function FieldHead({ field, sorted, press }: FieldHeadProps) {
  const Symbol = sorted === "desc" ? ArrowDown : ArrowUp;
  return (
    <div
      role="columnheader"
      aria-sort={sorted ? (sorted === "asc" ? "ascending" : "descending") : "none"}
      className="flex flex-col justify-end px-2 pb-1"
    >
      <button
        type="button"
        onClick={press}
        title="Sort what is shown"
        className="flex min-h-6 max-w-full items-center gap-1 text-[13px] font-semibold hover:underline"
      >
        <span className="truncate">{field?.name}</span>
        {sorted && <Symbol aria-hidden size={13} className="shrink-0 text-measure" />}
      </button>
      <span className="block text-[12px] text-soft">{field?.kind}</span>
    </div>
  );
}

function withRow(rows: number[], row: number, count: number): number[] {
  return row < count && !rows.includes(row) ? [...rows, row].sort((one, other) => one - other) : rows;
}

function toggled(chosen: Set<string>, row: string): Set<string> {
  const next = new Set(chosen);
  if (!next.delete(row)) next.add(row);
  return next;
}
