import { useQuery, useQueryClient, useMutation } from "@tanstack/react-query";
import { useState, type DragEvent } from "react";
import { Link, useParams } from "react-router";

import {
  cancelWatermark,
  isMarking,
  markedZipUrl,
  startWatermark,
  watermarkQuery,
  type Watermark,
} from "../../api/watermarkQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { droppedFiles } from "../../ui/droppedFiles";
import { Problem, Trouble } from "../../ui/Trouble";
import { useLimits } from "../../ui/useLimits";
import { Earlier } from "./Earlier";
import { Pictures } from "./Pictures";
import { Proofs } from "./Proofs";
import { StampFields } from "./StampFields";
import { useAdding, type Adding } from "./useAdding";

/** A mark in the corner of many pictures: how it stands, where it is seen least, and the pictures themselves. */
export function WatermarkScreen() {
  const { workspace = "", watermark = "" } = useParams();
  const found = useQuery(watermarkQuery(workspace, watermark));
  const adding = useAdding(workspace, watermark);
  if (found.error && !found.data) return <Trouble error={found.error} />;
  if (!found.data) return <main aria-busy className="px-7 py-10" />;
  return <Loaded workspace={workspace} watermark={found.data} adding={adding} />;
}

interface Props {
  workspace: string;
  watermark: Watermark;
  adding: Adding;
}

function Loaded({ workspace, watermark, adding }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { over, ...zone } = useDrop(adding.add);
  return (
    <main {...zone} className={`min-h-[80vh] px-7 pt-3 pb-10 ${over ? "bg-sheet" : ""}`}>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <div>
          <h1 className="text-[22px] leading-8">{headline(watermark)}</h1>
          <p role="status" className="text-[13px] text-soft">
            {sentence(watermark, adding.left)}
          </p>
        </div>
        <Making workspace={workspace} watermark={watermark} busy={adding.left > 0} />
      </div>
      {adding.trouble.length > 0 && (
        <div className="mt-3">
          <Problem message={adding.trouble.join(" ")} onDismiss={adding.forget} />
        </div>
      )}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-7 lg:grid-cols-[286px_minmax(0,1fr)]">
        <StampFields workspace={workspace} watermark={watermark} />
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-y-7">
          <Proofs workspace={workspace} watermark={watermark} chosen={chosen} />
          <Pictures
            workspace={workspace}
            watermark={watermark}
            adding={adding}
            chosen={chosen}
            choose={setChosen}
          />
        </div>
      </div>
      <Earlier workspace={workspace} watermark={watermark.id} />
    </main>
  );
}

/** Takes files that are dropped anywhere on the screen, and what lies in folders among them. */
function useDrop(add: (files: File[]) => void) {
  const [over, setOver] = useState(false);
  const { files_of_a_folder } = useLimits();
  return {
    over,
    onDragOver: (event: DragEvent) => {
      if (!event.dataTransfer.types.includes("Files")) return;
      event.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      void droppedFiles(event.dataTransfer, files_of_a_folder).then((batches) =>
        add(batches.flatMap((batch) => batch.files)),
      );
    },
  };
}

/** What comes next: marking the pictures, stopping that, or saving what is there. */
function Making({ workspace, watermark, busy }: { workspace: string; watermark: Watermark; busy: boolean }) {
  const queries = useQueryClient();
  const [folder, setFolder] = useState(watermark.folder);
  const settle = {
    onSuccess: (newest: Watermark) =>
      queries.setQueryData(watermarkQuery(workspace, watermark.id).queryKey, newest),
  };
  const start = useMutation({ mutationFn: () => startWatermark(workspace, watermark.id, folder), ...settle });
  const stop = useMutation({ mutationFn: () => cancelWatermark(workspace, watermark.id), ...settle });
  const trouble = start.error ?? stop.error;
  const left = watermark.to_mark;
  const marking = isMarking(watermark);
  return (
    <div className="ml-auto flex flex-wrap items-center gap-x-4 gap-y-2">
      {trouble && <Problem message={trouble.message} />}
      {marking ? (
        <Button disabled={stop.isPending} onClick={() => stop.mutate()}>
          Stop
        </Button>
      ) : (
        left > 0 && (
          <>
            {watermark.folders.length > 0 && (
              <Where folders={watermark.folders} folder={folder} set={setFolder} />
            )}
            <Button look="next" disabled={busy || start.isPending} onClick={() => start.mutate()}>
              {watermark.made > 0
                ? `Mark the other ${left === 1 ? "one" : left}`
                : `Mark ${plural(left, "picture", "pictures")}`}
            </Button>
          </>
        )
      )}
      {watermark.made > 0 && !marking && (
        <a
          href={markedZipUrl(workspace, watermark.id)}
          download
          className={`inline-flex min-h-8 items-center rounded-[3px] border px-3 py-1 text-[13px] font-semibold ${left > 0 ? "border-ink hover:bg-sheet" : "border-next bg-next text-on-next hover:opacity-90"}`}
        >
          Save {watermark.made === watermark.pictures ? "all" : watermark.made} as ZIP
        </a>
      )}
      {watermark.mark && (
        <Link
          to={`/w/${workspace}/artwork?chosen=${watermark.mark}`}
          className="inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
        >
          Back to the mark
        </Link>
      )}
      {marking && (
        <div
          role="progressbar"
          aria-label="Pictures marked"
          aria-valuemin={0}
          aria-valuemax={watermark.pictures}
          aria-valuenow={watermark.made + watermark.failed}
          className="h-1 w-44 bg-gauge"
        >
          <div
            className="h-full bg-measure"
            style={{
              width: `${(100 * (watermark.made + watermark.failed)) / Math.max(1, watermark.pictures)}%`,
            }}
          />
        </div>
      )}
    </div>
  );
}

interface WhereProps {
  folders: string[];
  folder: string;
  set: (folder: string) => void;
}

/** Where the files go. */
function Where({ folders, folder, set }: WhereProps) {
  return (
    <label className="flex items-baseline gap-2 text-[13px]">
      <span className="text-soft">into</span>
      <select
        value={folder}
        onChange={(event) => set(event.target.value)}
        className="min-h-8 border-b border-ink bg-transparent [&>option]:bg-sheet"
      >
        <option value="">a ZIP to save</option>
        {folders.map((one) => (
          <option key={one} value={one}>
            the folder {one} of this server
          </option>
        ))}
      </select>
    </label>
  );
}

function headline(watermark: Watermark): string {
  const mark = watermark.mark_name || "A mark that is gone";
  if (watermark.pictures === 0) return `${mark}, in the corner of pictures`;
  return `${mark}, in the corner of ${plural(watermark.pictures, "picture", "pictures")}`;
}

function sentence(watermark: Watermark, onTheirWay: number): string {
  if (onTheirWay > 0) return `${plural(onTheirWay, "file is", "files are")} on the way.`;
  if (watermark.reading > 0)
    return `${plural(watermark.reading, "picture is", "pictures are")} being looked at.`;
  if (watermark.state === "waiting") return "They wait for their turn.";
  if (watermark.state === "running") return `${watermark.made} of ${watermark.pictures} marked.`;
  const failed = watermark.failed
    ? ` ${plural(watermark.failed, "picture", "pictures")} could not be marked.`
    : "";
  if (watermark.state === "cancelled")
    return `Stopped; ${watermark.made} of ${watermark.pictures} are marked.${failed}`;
  if (watermark.made > 0) {
    const where = watermark.folder ? ` They lie in ${watermark.folder}.` : "";
    return `${watermark.made} marked, ${watermark.made_weight} together.${where}${failed}`;
  }
  if (watermark.pictures === 0) return "Your pictures stay as they are; you get marked copies.";
  if (watermark.hardly_seen > 0)
    return `On ${plural(watermark.hardly_seen, "picture", "pictures")} it is hardly seen.${failed}`;
  return `It is seen well on all of them.${failed}`;
}
