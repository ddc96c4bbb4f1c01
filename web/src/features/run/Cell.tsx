import { useLayoutEffect, useRef, useState, type KeyboardEvent } from "react";

import type { RunField } from "../../api/runQueries";
import type { At } from "./useGrid";

interface EditorProps {
  field: RunField;
  text: string;
  label: string;
  names: string;
  finish: (text: string, to?: Partial<At>) => void;
  leave: () => void;
}

/** Where a cell is typed: Enter keeps it and goes down, Tab goes on to the next, Escape leaves it as it was. */
export function CellEditor({ field, text, label, names, finish, leave }: EditorProps) {
  const [value, setValue] = useState(text);
  const input = useRef<HTMLTextAreaElement & HTMLInputElement>(null);
  const done = useRef(false);
  useLayoutEffect(() => {
    input.current?.focus();
    input.current?.setSelectionRange(value.length, value.length);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when it opens
  }, []);
  const keep = (to?: Partial<At>) => {
    if (done.current) return;
    done.current = true;
    finish(value, to);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === "Escape") {
      done.current = true;
      leave();
    } else if (event.key === "Enter" && !event.altKey) keep({ row: event.shiftKey ? -1 : 1 });
    else if (event.key === "Tab") keep({ field: event.shiftKey ? -1 : 1 });
    else if (event.key === "Enter") setValue(`${value}\n`);
    else return;
    event.preventDefault();
  };
  const shared = {
    ref: input,
    value,
    "aria-label": label,
    onKeyDown,
    onBlur: () => keep({}),
    className:
      "absolute inset-0 z-10 h-full w-full resize-none border-2 border-measure bg-sheet px-2 py-1.5 text-[13px] leading-[18px]",
  };
  return field.kind === "words" ? (
    <textarea {...shared} onChange={(event) => setValue(event.target.value)} />
  ) : (
    <input {...shared} list={names || undefined} onChange={(event) => setValue(event.target.value)} />
  );
}

interface ShownProps {
  field: RunField;
  text: string;
  /** The cell is empty, and this is what the piece says. */
  own: boolean;
  picture: { src: string; name: string } | null;
}

/** What a cell says; softly where it is empty and the piece says it. */
export function CellShown({ field, text, own, picture }: ShownProps) {
  const soft = own ? "text-soft" : "";
  if (!text) return null;
  if (picture)
    return (
      <span className={`flex items-center gap-2 ${soft}`}>
        <img
          src={picture.src}
          alt=""
          loading="lazy"
          className="checker light-checker max-h-10 w-auto max-w-14"
        />
        <span className="min-w-0 truncate">{picture.name}</span>
      </span>
    );
  if (field.kind === "colour")
    return (
      <span className={`flex items-center gap-2 ${soft}`}>
        {text.startsWith("#") && (
          <span aria-hidden className="size-4 border border-hairline" style={{ background: text }} />
        )}
        <span className="figure">{text}</span>
      </span>
    );
  return <span className={`line-clamp-3 whitespace-pre-line ${soft}`}>{text}</span>;
}
