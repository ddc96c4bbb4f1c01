import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, type ReactNode } from "react";

import { bringIn, bringInFromWeb } from "../api/actions";
import type { ArtworkOut } from "../api/client";
import { isTyping } from "./isTyping";
import { UploadTray, type Upload } from "./UploadTray";
import { UploadsContext, type Uploads } from "./useUploads";

let nextKey = 1;

/** Takes files from drop, dialog and paste, and shows how far each has come until it is ready or has failed. */
export function UploadsProvider({ workspace, children }: { workspace: string; children: ReactNode }) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const queries = useQueryClient();

  const change = useCallback((keys: number[], by: (upload: Upload, index: number) => Partial<Upload>) => {
    setUploads((all) =>
      all.map((entry) =>
        keys.includes(entry.key) ? { ...entry, ...by(entry, keys.indexOf(entry.key)) } : entry,
      ),
    );
  }, []);

  const follow = useCallback(
    (name: string, send: (onSent: (share: number) => void) => Promise<ArtworkOut | undefined>) => {
      const key = nextKey++;
      setUploads((all) => [...all, { key, name, sent: 0 }]);
      send((sent) => change([key], () => ({ sent })))
        .then(async (artwork) => {
          change([key], () => ({ sent: 1, artwork: artwork?.id }));
          // A first list that is still on its way does not know this file, and would not be asked for again.
          await queries.cancelQueries({ queryKey: [workspace, "artwork"] });
          await queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
        })
        .catch((error: Error) => change([key], () => ({ trouble: `${name}: ${error.message}` })));
    },
    [workspace, change, queries],
  );
  const bring = useCallback(
    (files: File[], targets: string[], tags: string[] = []) => {
      for (const file of files)
        follow(file.name, async (onSent) => (await bringIn(workspace, [file], targets, tags, onSent))[0]);
    },
    [workspace, follow],
  );
  const bringAddress = useCallback(
    (address: string, targets: string[]) =>
      follow(address, async () => await bringInFromWeb(workspace, address, targets)),
    [workspace, follow],
  );

  usePaste(bring, bringAddress);
  const value = useMemo(() => ({ bring, bringAddress }), [bring, bringAddress]);
  const forget = useCallback(
    (...keys: number[]) => setUploads((all) => all.filter((entry) => !keys.includes(entry.key))),
    [],
  );
  return (
    <UploadsContext value={value}>
      {children}
      {uploads.length > 0 && <UploadTray workspace={workspace} uploads={uploads} forget={forget} />}
    </UploadsContext>
  );
}

/** Takes pasted files, and outside of fields the address of a picture as well. */
function usePaste(bring: Uploads["bring"], bringAddress: Uploads["bringAddress"]) {
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      const words = event.clipboardData?.getData("text/plain").trim() ?? "";
      if (files.length > 0) bring(files, []);
      else if (/^https?:\/\/\S+$/.test(words) && !isTyping(event.target)) bringAddress(words, []);
    };
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, [bring, bringAddress]);
}
