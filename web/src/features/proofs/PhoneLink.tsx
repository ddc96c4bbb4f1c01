import { useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";

import { makePhoneLink } from "../../api/sceneQueries";
import { Problem } from "../../ui/Trouble";

/** A code to be photographed with a phone: the scenes open there, to be held in the hand. */
export function PhoneLink({ workspace, fit }: { workspace: string; fit: string }) {
  const link = useMutation({ mutationFn: () => makePhoneLink(workspace, fit) });
  return (
    <Dialog.Root onOpenChange={(open) => open && link.mutate()}>
      <Dialog.Trigger className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
        On my phone
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-40 w-[min(380px,92vw)] -translate-x-1/2 -translate-y-1/2 border border-ink bg-sheet p-6">
          <Dialog.Title className="text-lg">In your hand</Dialog.Title>
          <Dialog.Description className="pt-1 text-[13px]">
            Point the phone's camera at this code. The scenes open there without signing in, for half an hour,
            and nothing else does.
          </Dialog.Description>
          {link.error && <Problem message={link.error.message} />}
          {link.data && (
            <>
              <img
                src={`data:image/svg+xml,${encodeURIComponent(link.data.code)}`}
                alt="Code with the address below"
                className="mx-auto mt-4 block size-60 bg-white"
              />
              <input
                readOnly
                aria-label="Address"
                value={link.data.address}
                onFocus={(event) => event.target.select()}
                className="figure mt-3 w-full border-b border-hairline bg-transparent py-1"
              />
            </>
          )}
          <div className="mt-4 flex justify-end">
            <Dialog.Close className="min-h-8 px-2 text-[13px] font-semibold hover:underline">
              Close
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
