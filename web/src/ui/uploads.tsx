import { useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useCallback, useEffect, useMemo, useState, type ReactNode } from "react";

import { bringIn, bringInFromWeb } from "../api/actions";
import type { ArtworkOut } from "../api/client";
import { artworkQuery, isOnItsWay } from "../api/queries";
import { isTyping } from "./isTyping";
import { UploadsContext, type Uploads } from "./useUploads";

interface Upload {
  key: number;
  name: string;
  sent: number;
  artwork?: string;
  trouble?: string;
}

const GONE_AFTER_MS = 4000;
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
    (files: File[], fills: string[], tags: string[] = []) => {
      for (const file of files)
        follow(file.name, async (onSent) => (await bringIn(workspace, [file], fills, tags, onSent))[0]);
    },
    [workspace, follow],
  );
  const bringAddress = useCallback(
    (address: string, fills: string[]) =>
      follow(address, async () => await bringInFromWeb(workspace, address, fills)),
    [workspace, follow],
  );

  usePaste(bring, bringAddress);
  const value = useMemo(() => ({ bring, bringAddress }), [bring, bringAddress]);
  const forget = useCallback(
    (key: number) => setUploads((all) => all.filter((entry) => entry.key !== key)),
    [],
  );
  return (
    <UploadsContext value={value}>
      {children}
      {uploads.length > 0 && <Tray workspace={workspace} uploads={uploads} forget={forget} />}
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

interface TrayProps {
  workspace: string;
  uploads: Upload[];
  forget: (key: number) => void;
}

function Tray({ workspace, uploads, forget }: TrayProps) {
  const artwork = useQuery(artworkQuery(workspace));
  const byId = new Map((artwork.data ?? []).map((entry) => [entry.id, entry]));
  return (
    <section
      aria-label="Files on their way"
      aria-live="polite"
      className="fixed bottom-5 left-1/2 z-30 w-90 max-w-[calc(100vw-40px)] -translate-x-1/2 border border-ink bg-sheet"
    >
      {uploads.map((upload) => (
        <Row
          key={upload.key}
          workspace={workspace}
          upload={upload}
          artwork={upload.artwork ? byId.get(upload.artwork) : undefined}
          forget={forget}
        />
      ))}
    </section>
  );
}

interface RowProps {
  workspace: string;
  upload: Upload;
  artwork?: ArtworkOut;
  forget: (key: number) => void;
}

function Row({ workspace, upload, artwork, forget }: RowProps) {
  const queries = useQueryClient();
  const ready = artwork?.state === "ready" && !isOnItsWay(artwork);
  const trouble = upload.trouble ?? (artwork?.state === "failed" ? artwork.message : undefined);
  useEffect(() => {
    if (!ready) return;
    const look = () => {
      void queries.invalidateQueries({ queryKey: [workspace, "wall"] });
      void queries.invalidateQueries({ queryKey: [workspace, "fit"] });
    };
    look();
    const later = setTimeout(() => forget(upload.key), GONE_AFTER_MS);
    return () => {
      clearTimeout(later);
    };
  }, [ready, queries, workspace, forget, upload.key]);
  const share = ready ? 1 : upload.sent * 0.5 + (artwork?.progress ?? 0) / 200;
  return (
    <div className="border-b border-hairline px-4 py-3 last:border-b-0">
      <div className="flex items-baseline gap-3">
        <span className={`min-w-0 flex-1 text-[13px] ${trouble ? "text-refused" : "truncate"}`}>
          {trouble ?? upload.name}
        </span>
        <span className="figure text-soft">{words(upload, artwork, trouble)}</span>
        <button
          type="button"
          aria-label={`Put away ${upload.name}`}
          onClick={() => forget(upload.key)}
          className="p-1"
        >
          <X aria-hidden size={14} />
        </button>
      </div>
      {!trouble && (
        <div className="mt-1.5 h-[3px] bg-gauge">
          <div className="h-full bg-measure transition-[width]" style={{ width: `${share * 100}%` }} />
        </div>
      )}
    </div>
  );
}

function words(upload: Upload, artwork: ArtworkOut | undefined, trouble: string | undefined): string {
  if (trouble) return "not taken";
  if (upload.sent < 1) return `sending ${Math.round(upload.sent * 100)} %`;
  if (!artwork || artwork.state === "queued") return "waiting";
  return artwork.state === "ready" ? "ready" : `reading ${artwork.progress} %`;
}
