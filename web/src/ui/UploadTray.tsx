import { useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect } from "react";

import type { ArtworkOut } from "../api/client";
import { artworkQuery } from "../api/queries";

export interface Upload {
  key: number;
  name: string;
  sent: number;
  artwork?: string;
  trouble?: string;
}

type Forget = (...keys: number[]) => void;

const GONE_AFTER_MS = 4000;
const MOST_FOLLOWED = 200;
const COUNTED_FROM = 4; // files; fewer are seen at a glance

interface TrayProps {
  workspace: string;
  uploads: Upload[];
  forget: Forget;
}

/** Files on their way and what became of them; those that were not taken come first and stay until put away. */
export function UploadTray({ workspace, uploads, forget }: TrayProps) {
  const ids = uploads.flatMap((upload) => upload.artwork ?? []).slice(-MOST_FOLLOWED);
  const artwork = useQuery({ ...artworkQuery(workspace, { ids: ids.join(",") }), enabled: ids.length > 0 });
  const byId = new Map((artwork.data ?? []).map((entry) => [entry.id, entry]));
  const all = uploads.map((upload) => standing(upload, byId.get(upload.artwork ?? "")));
  const refused = all.filter((entry) => entry.trouble);
  const others = all.filter((entry) => !entry.trouble);
  return (
    <section
      aria-label="Files on their way"
      className="fixed bottom-5 left-1/2 z-30 flex max-h-[45vh] w-90 max-w-[calc(100vw-40px)] -translate-x-1/2 flex-col border border-ink bg-sheet"
    >
      <div
        className={
          all.length < COUNTED_FROM && refused.length < 2
            ? "sr-only"
            : "flex items-baseline justify-between border-b border-ink px-4 py-2"
        }
      >
        <span role="status" className="text-[13px] font-semibold">
          {summary(others.filter((entry) => !entry.ready).length, refused.length)}
        </span>
        {refused.length > 1 && (
          <button
            type="button"
            className="text-[13px] font-semibold text-measure hover:underline"
            onClick={() => forget(...refused.map((entry) => entry.upload.key))}
          >
            Put all away
          </button>
        )}
      </div>
      <div className="min-h-0 overflow-y-auto">
        {[...refused, ...others].map((entry) => (
          <Row key={entry.upload.key} workspace={workspace} {...entry} forget={forget} />
        ))}
      </div>
    </section>
  );
}

function summary(underWay: number, refused: number): string {
  const files = (count: number) => `${count} ${count === 1 ? "file" : "files"}`;
  const going = underWay > 0 ? `${files(underWay)} on ${underWay === 1 ? "its" : "their"} way` : "";
  return [going, refused > 0 ? `${files(refused)} not taken` : ""].filter(Boolean).join(", ") || "All are in";
}

interface Standing {
  upload: Upload;
  ready: boolean;
  trouble?: string;
  share: number;
  words: string;
}

/** How far a file has come: half of its way is being sent, half being read. */
function standing(upload: Upload, artwork: ArtworkOut | undefined): Standing {
  // In its places too; what is prepared afterwards is no matter of bringing it in.
  const ready = artwork?.state === "ready" && artwork.targets.length === 0;
  const trouble = upload.trouble ?? (artwork?.state === "failed" ? artwork.message : undefined);
  const share = ready ? 1 : upload.sent * 0.5 + (artwork?.progress ?? 0) / 200;
  return { upload, ready, trouble, share, words: words(upload, artwork, trouble) };
}

interface RowProps extends Standing {
  workspace: string;
  forget: Forget;
}

function Row({ workspace, upload, ready, trouble, share, words, forget }: RowProps) {
  const queries = useQueryClient();
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
  return (
    <div className="border-b border-hairline px-4 py-3 last:border-b-0">
      <div className="flex items-baseline gap-3">
        <span className={`min-w-0 flex-1 text-[13px] ${trouble ? "text-refused" : "truncate"}`}>
          {trouble ?? upload.name}
        </span>
        <span className="figure text-soft">{words}</span>
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
  if (!artwork || artwork.state === "queued")
    return artwork?.message ? "waiting for room on the server" : "waiting";
  return artwork.state === "ready" ? "ready" : `reading ${artwork.progress} %`;
}
