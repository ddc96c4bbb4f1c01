import { EllipsisVertical } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { memo, useState } from "react";

import type { Entry, RowProblem, Run, RunField, RunPlace } from "../../api/runQueries";
import { artworkUrl } from "../../api/queries";
import { plural } from "../../measure/words";
import { DropZone } from "../../ui/DropZone";
import { CellEditor, CellShown } from "./Cell";
import { ROW_PX } from "./measures";
import { cellKey } from "./problems";
import { RowProofs } from "./RowProofs";
import type { GridDeeds } from "./useGrid";
import type { RowDeeds } from "./useRunActions";
import type { Seen } from "./useSeen";

interface Props {
  workspace: string;
  run: Run;
  row: Entry;
  index: number;
  number: number;
  top: number;
  template: string;
  places: RunPlace[];
  seen: Seen;
  byPlace: Map<string, RowProblem[]>;
  byCell: Map<string, RowProblem[]>;
  coming: boolean;
  chosen: boolean;
  choose: (row: string) => void;
  here: number | null;
  typed: string | null;
  left: number | null;
  right: number;
  deeds: GridDeeds;
  actions: RowDeeds;
}

/** One row: its number and what can be done with it, its proofs, its cells. */
export const RunRow = memo(function RunRow(props: Props) {
  const { run, row, index, number, top, template, chosen, choose, actions } = props;
  const differs = run.by_hand[row.id] ?? 0;
  const [own] = props.byCell.get(cellKey(row.id, "")) ?? [];
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-selected={chosen}
      className={`absolute inset-x-0 grid border-b border-hairline ${row.put_away ? "opacity-55" : ""} ${chosen ? "bg-sheet" : ""}`}
      style={{ top, height: ROW_PX, gridTemplateColumns: template }}
    >
      <div role="rowheader" className="flex items-start gap-2.5 px-2 pt-2">
        <input
          type="checkbox"
          aria-label={`Choose row ${number}`}
          checked={chosen}
          onChange={() => choose(row.id)}
          className="mt-[3px] size-[18px] shrink-0 accent-(--measure)"
        />
        <div className="min-w-0">
          <RowMenu run={run} row={row} number={number} actions={actions} />
          {row.put_away && <span className="block text-[12px] text-soft">put away</span>}
          {differs > 0 && (
            <span
              className="block text-[12px] leading-[14px] text-measure"
              title={`${plural(differs, "field differs", "fields differ")} by hand in this row`}
            >
              {differs} by hand
            </span>
          )}
          {own && (
            <span className="block text-[12px] text-refused" title={own.words}>
              cannot be used
            </span>
          )}
        </div>
      </div>
      <RowProofs
        workspace={props.workspace}
        piece={run.piece}
        row={row.id}
        places={props.places}
        seen={props.seen}
        problems={props.byPlace}
        coming={props.coming}
        open={(placement) => actions.openByHand(row.id, placement)}
        mayChange={run.may_change}
      />
      {run.fields.map((field, at) => (
        <RunCell key={field.name} {...props} field={field} at={at} />
      ))}
    </div>
  );
});

function RunCell(props: Props & { field: RunField; at: number }) {
  const { workspace, run, row, index, number, byCell, deeds, field, at } = props;
  const here = props.here === at;
  const isChosen = props.left !== null && at >= props.left && at <= props.right;
  const text = row.cells?.[field.name] ?? "";
  const [wrong] = byCell.get(cellKey(row.id, field.name)) ?? [];
  const artwork = field.kind === "picture" || field.kind === "mark";
  const said = text || (run.counted[field.name]?.[number - 1] ?? run.own[field.name] ?? "");
  const named = artwork ? run.pictures[said.trim()] : undefined;
  const picture = named
    ? { src: artworkUrl(workspace, { id: named.id, key: run.artwork }, 80), name: named.name }
    : null;
  const typed = here ? props.typed : null;
  const words = (picture?.name ?? said) || "empty";
  const label = `Row ${number}, ${field.name}: ${words}${text || !said ? "" : ", as the piece says"}${wrong ? `. ${wrong.words}` : ""}`;
  const cell = (
    <div
      role="gridcell"
      data-cell={`${index} ${at}`}
      tabIndex={here ? 0 : -1}
      aria-label={label}
      aria-selected={isChosen}
      onMouseDown={(event) => deeds.go({ row: index, field: at }, event.shiftKey)}
      onDoubleClick={() => deeds.begin()}
      className={`relative h-full overflow-hidden border-l border-hairline px-2 py-1.5 text-[13px] leading-[18px] outline-offset-[-2px] ${isChosen && !here ? "bg-(--measure-faint)" : ""} ${here ? "outline-2 outline-measure" : ""}`}
    >
      {typed === null ? (
        <>
          <CellShown field={field} text={said} own={!text} picture={picture} />
          {wrong && <p className="line-clamp-2 pt-0.5 text-[12px] leading-4 text-refused">{wrong.words}</p>}
        </>
      ) : (
        <CellEditor
          field={field}
          text={typed}
          label={`Row ${number}, ${field.name}`}
          names={artwork ? "run-pictures" : ""}
          finish={deeds.finish}
          leave={deeds.leave}
        />
      )}
    </div>
  );
  if (!artwork) return cell;
  return (
    <DropZone
      targets={[`row/${run.piece}/${field.name}/${row.id}`]}
      className="min-w-0"
      over="outline-2 outline-measure"
    >
      {cell}
    </DropZone>
  );
}

interface MenuProps {
  run: Run;
  row: Entry;
  number: number;
  actions: RowDeeds;
}

/** What can be done with a row. */
function RowMenu({ run, row, number, actions }: MenuProps) {
  const [open, setOpen] = useState(false);
  const deeds: [string, () => void][] = [
    ["Add a row above", () => actions.addRow(row.id)],
    ["Copy this row", () => actions.copyRow(row)],
    [row.put_away ? "Bring it back" : "Put it away", () => actions.putAway([row.id], !row.put_away)],
    ["Make its files", () => actions.make([row.id])],
    ...(run.may_deliver
      ? [["Deliver its files", () => actions.deliver([row.id], false)] as [string, () => void]]
      : []),
    ...(run.by_hand[row.id]
      ? [["Let it follow the piece again", () => actions.followAgain(row)] as [string, () => void]]
      : []),
    ["Remove this row", () => actions.remove([row.id])],
  ];
  return (
    <DropdownMenu.Root open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger
        aria-label={`Row ${number}: what can be done with it`}
        className="figure flex min-h-6 items-center gap-0.5 text-[13px] hover:text-measure"
      >
        {number}
        <EllipsisVertical aria-hidden size={13} className="text-soft" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 min-w-52 border border-ink bg-sheet py-1.5 text-[13px]"
        >
          {deeds.map(([words, press]) => (
            <DropdownMenu.Item
              key={words}
              onSelect={press}
              className="cursor-default px-4 py-1.5 outline-none data-highlighted:bg-gauge"
            >
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
