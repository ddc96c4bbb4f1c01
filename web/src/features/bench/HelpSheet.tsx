import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";

import { Button } from "../../ui/Button";
import { isTyping } from "../../ui/isTyping";
import { KEYS } from "./useBenchKeys";

/** Every key of the bench, opened with a question mark. */
export function HelpSheet() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "?" && !isTyping(event.target)) setOpen(true);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
        Keys ?
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-40 max-h-[86vh] w-[min(560px,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-ink bg-sheet p-6"
        >
          <Dialog.Title className="border-b-2 border-strong pb-2 text-lg">
            At the bench, by keyboard
          </Dialog.Title>
          <dl className="text-[13px]">
            {KEYS.map(([keys, words]) => (
              <div key={keys} className="grid grid-cols-[190px_1fr] gap-3 border-b border-hairline py-1.5">
                <dt className="figure pt-[2px] text-measure">{keys}</dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
          <div className="mt-4 flex justify-end">
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
