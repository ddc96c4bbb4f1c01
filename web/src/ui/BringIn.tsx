import { useRef } from "react";

import { Button } from "./Button";
import { chosenFolder } from "./droppedFiles";
import { useLimits } from "./useLimits";
import { useUploads } from "./useUploads";

interface Props {
  targets: string[];
  label: string;
  look?: "plain" | "quiet" | "bare" | "next";
  /** Lets a folder be chosen, with all that lies in it. */
  folder?: boolean;
  brought?: () => void;
}

const TAKEN =
  "image/*,video/mp4,video/webm,.mov,.mkv,.svg,.svgz,.bmp,.ico,.tif,.tiff,.avif,.heic,.heif,.pdf,.json";
const FILES = { multiple: true, accept: TAKEN };
const FOLDER = { webkitdirectory: "" }; // known to all browsers, not to the types of React

/** A button that opens the file dialog; what is chosen fills the named placements as soon as it is read. */
export function BringIn({ targets, label, look = "plain", folder = false, brought }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const { bring } = useUploads();
  const { files_of_a_folder } = useLimits();
  const take = (files: File[]) => {
    if (folder)
      for (const batch of chosenFolder(files, files_of_a_folder))
        bring(batch.files, targets, batch.folder ? [batch.folder] : []);
    else bring(files, targets);
    brought?.();
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={label}
        {...(folder ? FOLDER : FILES)}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          take(files);
        }}
      />
      <Button look={look} onClick={() => input.current?.click()}>
        {label}
      </Button>
    </>
  );
}
