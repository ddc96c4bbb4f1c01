import { DropdownMenu } from "radix-ui";
import { useRef } from "react";

import { tableUrl, type Run } from "../../api/runQueries";
import type { RunActions } from "./useRunActions";

const ITEM = "block cursor-default px-4 py-1.5 outline-none data-highlighted:bg-gauge";

/** Tables in and out. */
export function TablesMenu({
  workspace,
  run,
  actions,
}: {
  workspace: string;
  run: Run;
  actions: RunActions;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        aria-label="A table to read"
        accept=".csv,.tsv,.txt,.xlsx"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) actions.read(file);
          event.target.value = "";
        }}
      />
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
          {actions.reading ? "Reading the table" : "Tables in and out"}
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-40 min-w-56 border border-ink bg-sheet py-1.5 text-[13px]"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => input.current?.click()}>
              Read rows from a CSV or XLSX file
            </DropdownMenu.Item>
            {(["csv", "xlsx"] as const).map((format) => (
              <DropdownMenu.Item key={format} asChild className={ITEM}>
                <a href={tableUrl(workspace, run.piece, format)} download>
                  Save all rows as {format.toUpperCase()}
                </a>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
