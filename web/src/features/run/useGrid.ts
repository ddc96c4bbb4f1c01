import { flushSync } from "react-dom";
import { useLayoutEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from "react";

import { isTyping } from "../../ui/isTyping";

/** A cell by its row (of those that are shown) and its field, both counted from 0. */
export interface At {
  row: number;
  field: number;
}

interface Props {
  rows: number;
  fields: number;
  textAt: (at: At) => string;
  /** Gives cells a text; all of them in one step. */
  write: (cells: { at: At; text: string }[], step: string) => void;
  paste: (at: At, text: string) => void;
  /** Brings a row into view. */
  show: (row: number) => void;
  /** Whether cells of a field are switched and not typed. */
  switched: (field: number) => boolean;
}

/** What is done in a grid; always the same object. */
export interface GridDeeds {
  go: (to: At, extend?: boolean) => void;
  begin: () => void;
  finish: (text: string, to?: Partial<At>) => void;
  leave: () => void;
}

/** Where one is in a row: the field, what is being typed there, and which fields are chosen. */
export interface InRow {
  here: number | null;
  typed: string | null;
  left: number | null;
  right: number;
}

const PAGE = 8;

/** Where one is in a grid of cells, what is chosen, and what is being typed; keys as in any grid. */
export function useGrid({ rows, fields, textAt, write, paste, show, switched }: Props) {
  const [wanted, setWanted] = useState<At>({ row: 0, field: 0 });
  const [anchor, setAnchor] = useState<At>({ row: 0, field: 0 });
  const [typed, setTyped] = useState<string | null>(null);
  const within = (at: At): At => ({
    row: Math.min(Math.max(at.row, 0), Math.max(0, rows - 1)),
    field: Math.min(Math.max(at.field, 0), Math.max(0, fields - 1)),
  });
  const at = within(wanted);
  const from = within(anchor);
  const box = {
    top: Math.min(at.row, from.row),
    bottom: Math.max(at.row, from.row),
    left: Math.min(at.field, from.field),
    right: Math.max(at.field, from.field),
  };

  const go = (to: At, extend = false) => {
    const next = within(to);
    flushSync(() => {
      setWanted(next);
      if (!extend) setAnchor(next);
    });
    show(next.row);
  };
  const begin = (text = textAt(at)) => {
    if (switched(at.field)) write([{ at, text: textAt(at) === "no" ? "yes" : "no" }], "show or hide");
    else flushSync(() => setTyped(text)); // the next letter may come before the next frame
  };
  const finish = (text: string, to: Partial<At> = {}) => {
    setTyped(null);
    if (text !== textAt(at)) write([{ at, text }], "change a cell");
    go({ row: at.row + (to.row ?? 0), field: at.field + (to.field ?? 0) });
  };
  const chosen = () => {
    const cells: At[] = [];
    for (let row = box.top; row <= box.bottom; row++)
      for (let field = box.left; field <= box.right; field++) cells.push({ row, field });
    return cells;
  };
  const clear = () =>
    write(
      chosen()
        .filter((one) => textAt(one) !== "")
        .map((one) => ({ at: one, text: "" })),
      "clear cells",
    );

  const onKeyDown = (event: KeyboardEvent) => {
    if (typed !== null || isTyping(event.target)) return;
    const held = event.ctrlKey || event.metaKey;
    const moves: Record<string, At> = {
      ArrowUp: { row: held ? 0 : at.row - 1, field: at.field },
      ArrowDown: { row: held ? rows - 1 : at.row + 1, field: at.field },
      ArrowLeft: { row: at.row, field: held ? 0 : at.field - 1 },
      ArrowRight: { row: at.row, field: held ? fields - 1 : at.field + 1 },
      Home: { row: held ? 0 : at.row, field: 0 },
      End: { row: held ? rows - 1 : at.row, field: fields - 1 },
      PageUp: { row: at.row - PAGE, field: at.field },
      PageDown: { row: at.row + PAGE, field: at.field },
    };
    const move = moves[event.key];
    if (move) go(move, event.shiftKey);
    else if (event.key === "Enter" || event.key === "F2") begin();
    else if (event.key === "Delete" || event.key === "Backspace") clear();
    else if (held && event.key.toLowerCase() === "a") {
      setAnchor({ row: 0, field: 0 });
      setWanted({ row: rows - 1, field: fields - 1 });
    } else if (event.key === " " && switched(at.field)) begin();
    else if (event.key.length === 1 && !held && !event.altKey) begin(event.key);
    else return;
    event.preventDefault();
  };

  const onPaste = (event: ClipboardEvent) => {
    if (typed !== null || isTyping(event.target)) return;
    event.preventDefault();
    paste({ row: box.top, field: box.left }, event.clipboardData.getData("text/plain"));
  };
  const onCopy = (event: ClipboardEvent) => {
    if (typed !== null || isTyping(event.target)) return;
    event.preventDefault();
    const lines: string[] = [];
    for (let row = box.top; row <= box.bottom; row++) {
      const cells: string[] = [];
      for (let field = box.left; field <= box.right; field++) cells.push(quoted(textAt({ row, field })));
      lines.push(cells.join("\t"));
    }
    event.clipboardData.setData("text/plain", lines.join("\n"));
  };
  const latest = useRef({ go, begin, finish, leave: () => undefined as void });
  useLayoutEffect(() => {
    latest.current = {
      go,
      begin,
      finish,
      leave: () => {
        setTyped(null);
        show(at.row);
      },
    };
  });
  const [deeds] = useState<GridDeeds>(() => ({
    go: (to, extend) => latest.current.go(to, extend),
    begin: () => latest.current.begin(),
    finish: (text, to) => latest.current.finish(text, to),
    leave: () => latest.current.leave(),
  }));
  /** What a row has to know of it; the same for as long as nothing changes there. */
  const inRow = (row: number): InRow => ({
    here: row === at.row ? at.field : null,
    typed: row === at.row ? typed : null,
    left: row >= box.top && row <= box.bottom ? box.left : null,
    right: box.right,
  });

  return { at, typed, deeds, inRow, onKeyDown, onPaste, onCopy };
}

/** A cell for the clipboard as spreadsheets write it: in quotes where it holds what separates cells. */
function quoted(text: string): string {
  return /[\t\n"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
