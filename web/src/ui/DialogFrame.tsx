import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

import { Button } from "./Button";

interface Props {
  title: string;
  wide?: boolean;
  children: ReactNode;
  /** What stands beside the button that closes it. */
  foot?: ReactNode;
}

/** What a dialog of ours looks like; it stands inside of a `Dialog.Root`. */
export function DialogFrame({ title, wide = false, children, foot }: Props) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
      <Dialog.Content
        aria-describedby={undefined}
        className={`fixed top-[6vh] left-1/2 z-40 flex max-h-[88vh] -translate-x-1/2 flex-col border border-ink bg-sheet p-6 max-sm:p-4 ${wide ? "w-[min(1080px,94vw)]" : "w-[min(760px,94vw)]"}`}
      >
        <Dialog.Title className="text-lg">{title}</Dialog.Title>
        <div className="mt-3 min-h-16 overflow-y-auto" tabIndex={0} role="region" aria-label={title}>
          {children}
        </div>
        <div className="mt-4 flex flex-wrap items-center justify-end gap-4">
          {foot}
          <Dialog.Close asChild>
            <Button>Close</Button>
          </Dialog.Close>
        </div>
      </Dialog.Content>
    </Dialog.Portal>
  );
}
