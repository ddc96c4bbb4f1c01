import { ArrowDown, ArrowUp } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { Connection } from "./Connection";
import { DeleteDestination } from "./DeleteDestination";
import { useDestination } from "./useDestination";

interface Props {
  workspace: string;
  shelf: Schemas["Shelf"];
  /** Its place among the shelves, from 0, and how many there are. */
  position: number;
  of: number;
}

/** A shelf's name, and behind it what is kept of the destination: note, help page, when it was checked, its place. */
export function ShelfMenu({ workspace, shelf, position, of }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        draggable
        onDragStart={(event) => event.dataTransfer.setData(SHELF, shelf.id)}
        title={shelf.note || undefined}
        className="min-h-6 hover:underline"
      >
        {shelf.name}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={12}
          aria-label={`About ${shelf.name}`}
          className="z-40 grid w-80 gap-3 border border-ink bg-sheet p-4 text-[13px]"
        >
          <About key={shelf.id} workspace={workspace} shelf={shelf} position={position} of={of} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** What a dragged shelf carries. */
export const SHELF = "application/x-fitzle-shelf";

function About({ workspace, shelf, position, of }: Props) {
  const change = useDestination(workspace);
  const save = (body: Parameters<typeof change.mutate>[0]["body"]) =>
    change.mutate({ destination: shelf.id, body });
  const field =
    "mt-0.5 block min-h-8 w-full min-w-0 border-b border-ink bg-transparent text-[15px] text-ink placeholder:text-soft";
  return (
    <>
      <label className="text-soft">
        The destination is called
        <input
          defaultValue={shelf.name}
          maxLength={120}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== shelf.name) save({ name });
          }}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          className={field}
        />
      </label>
      <label className="text-soft">
        Note
        <textarea
          defaultValue={shelf.note}
          maxLength={2000}
          rows={2}
          onBlur={(event) => event.target.value !== shelf.note && save({ note: event.target.value })}
          className={`${field} field-sizing-content max-h-40 resize-none`}
        />
      </label>
      <label className="text-soft">
        Help page that the figures came from
        <input
          type="url"
          defaultValue={shelf.help_address}
          maxLength={500}
          placeholder="https://"
          onBlur={(event) => {
            const address = event.target.value.trim();
            if (address !== shelf.help_address) save({ help_address: address });
          }}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          className={field}
        />
      </label>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className={shelf.wants_checking ? "font-semibold text-risky" : "text-soft"}>
          {shelf.checked_on
            ? `Checked on ${new Date(shelf.checked_on).toLocaleDateString("en-GB")}`
            : "Never checked"}
        </span>
        <Button look="bare" onClick={() => save({ checked_on: new Date().toISOString().slice(0, 10) })}>
          Checked today
        </Button>
        {shelf.help_address && (
          <a
            href={shelf.help_address}
            target="_blank"
            rel="noreferrer"
            className="ml-auto inline-flex min-h-6 items-center font-semibold text-measure hover:underline"
          >
            Open the help page
          </a>
        )}
      </p>
      <Connection workspace={workspace} destination={shelf.id} />
      <div className="flex flex-wrap gap-3 border-t border-hairline pt-3">
        <Button disabled={position === 0} onClick={() => save({ position: position - 1 })}>
          <ArrowUp aria-hidden size={13} /> Earlier
        </Button>
        <Button disabled={position >= of - 1} onClick={() => save({ position: position + 1 })}>
          <ArrowDown aria-hidden size={13} /> Later
        </Button>
        <DeleteDestination workspace={workspace} shelf={shelf} />
      </div>
      {change.error && <Problem message={change.error.message} onDismiss={change.reset} />}
    </>
  );
}
