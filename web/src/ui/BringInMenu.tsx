import { Popover } from "radix-ui";
import { useRef, useState } from "react";

import { TAKEN } from "./BringIn";
import { Button } from "./Button";
import { chosenFolder } from "./droppedFiles";
import { useUploads } from "./useUploads";

const FOLDER = { webkitdirectory: "" }; // known to all browsers, not to the types of React

/** Every way to bring artwork in: files, a folder, an address on the web. */
export function BringInMenu() {
  const [open, setOpen] = useState(false);
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const { bring } = useUploads();
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <input
        ref={files}
        type="file"
        multiple
        hidden
        aria-label="Files of artwork"
        accept={TAKEN}
        onChange={(event) => {
          bring([...(event.target.files ?? [])], []);
          event.target.value = "";
        }}
      />
      <input
        ref={folder}
        type="file"
        {...FOLDER}
        hidden
        aria-label="A folder of artwork"
        onChange={(event) => {
          for (const batch of chosenFolder([...(event.target.files ?? [])]))
            bring(batch.files, [], batch.folder ? [batch.folder] : []);
          event.target.value = "";
        }}
      />
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
            <Button
              look="next"
              onClick={() => {
                setOpen(false);
                files.current?.click();
              }}
            >
              Choose files
            </Button>
            <Button
              onClick={() => {
                setOpen(false);
                folder.current?.click();
              }}
            >
              Choose a folder
            </Button>
          </div>
          <ByAddress done={() => setOpen(false)} />
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
