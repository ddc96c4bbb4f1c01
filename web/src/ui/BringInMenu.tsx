import { Popover } from "radix-ui";
import { useState } from "react";

import { BringIn } from "./BringIn";
import { Button } from "./Button";
import { useUploads } from "./useUploads";

/** Every way to bring artwork in: files, a folder, an address on the web. */
export function BringInMenu() {
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button>Bring in artwork</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          className="z-30 w-[320px] border border-ink bg-sheet p-4 text-[13px]"
        >
          <div className="flex gap-2">
            <BringIn targets={[]} label="Choose files" look="next" brought={close} />
            <BringIn targets={[]} label="Choose a folder" folder brought={close} />
          </div>
          <ByAddress done={close} />
          <p className="mt-3 border-t border-hairline pt-2 text-soft">
            Files and folders can also be dropped anywhere; pictures and addresses can be pasted.
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function ByAddress({ done }: { done: () => void }) {
  const [address, setAddress] = useState("");
  const { bringAddress } = useUploads();
  return (
    <form
      className="mt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!address.trim()) return;
        bringAddress(address.trim(), []);
        done();
      }}
    >
      <label className="block">
        <span className="text-soft">Or the address of a picture on the web</span>
        <span className="mt-1 flex items-end gap-2">
          <input
            type="text"
            inputMode="url"
            value={address}
            placeholder="https://"
            onChange={(event) => setAddress(event.target.value)}
            className="min-h-8 min-w-0 flex-1 border-b border-ink bg-transparent placeholder:text-soft"
          />
          <Button type="submit" disabled={!address.trim()}>
            Fetch it
          </Button>
        </span>
      </label>
    </form>
  );
}
