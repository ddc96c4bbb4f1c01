import { useRef } from "react";

import { Button } from "./Button";
import { useUploads } from "./useUploads";

export const TAKEN =
  "image/*,video/mp4,video/webm,.mov,.mkv,.svg,.svgz,.bmp,.ico,.tif,.tiff,.avif,.heic,.heif,.pdf,.json";

interface Props {
  fills: string[];
  label: string;
  look?: "plain" | "quiet" | "bare" | "next";
}

/** A button that opens the file dialog; what is chosen fills the named placements as soon as it is read. */
export function BringIn({ fills, label, look = "plain" }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const { bring } = useUploads();
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label={label}
        accept={TAKEN}
        onChange={(event) => {
          bring([...(event.target.files ?? [])], fills);
          event.target.value = "";
        }}
      />
      <Button look={look} onClick={() => input.current?.click()}>
        {label}
      </Button>
    </>
  );
}
