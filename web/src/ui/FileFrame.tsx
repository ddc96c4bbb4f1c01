import { useEffect, useMemo, useRef, useState, type DragEvent, type ReactNode } from "react";

import { Button } from "./Button";

interface Props {
  title: string;
  hint: string;
  file: File | null;
  choose: (file: File | null) => void;
  children?: ReactNode;
}

/** A frame that takes one picture by drop or dialog, and shows it. */
export function FileFrame({ title, hint, file, choose, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    event.stopPropagation();
    setOver(false);
    const [first] = event.dataTransfer.files;
    if (first) choose(first);
  };
  return (
    <section
      aria-label={title}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={`border p-4 ${file ? "border-hairline" : "border-dashed"} ${over ? "border-measure" : "border-strong"}`}
    >
      <input
        ref={input}
        type="file"
        hidden
        accept="image/*,.svg,.pdf"
        aria-label={title}
        onChange={(event) => {
          choose(event.target.files?.[0] ?? null);
          event.target.value = "";
        }}
      />
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[15px]">{title}</h2>
        <span className="min-w-0 truncate text-[13px] text-soft">{file ? file.name : hint}</span>
        <Button look="bare" className="ml-auto" onClick={() => input.current?.click()}>
          {file ? "Another one" : "Choose a file"}
        </Button>
      </div>
      {children}
    </section>
  );
}

/** An address under which the browser shows a file of this machine. */
export function useAddress(file: File | null): string | undefined {
  const address = useMemo(() => (file ? URL.createObjectURL(file) : undefined), [file]);
  useEffect(() => () => (address ? URL.revokeObjectURL(address) : undefined), [address]);
  return address;
}
