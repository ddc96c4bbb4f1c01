import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Check, OctagonX, X } from "lucide-react";
import { useRef, useState } from "react";

import {
  isMarking,
  markedFileUrl,
  removePicture,
  type MarkedPicture,
  type Watermark,
} from "../../api/watermarkQueries";
import { Button } from "../../ui/Button";
import { StandsOut } from "./Proofs";
import type { Adding } from "./useAdding";

const SHOWN = 40; // pictures that are listed at once
const TAKEN = "image/jpeg,image/png,image/webp,image/avif,image/gif,video/mp4,video/webm,.mov,.mkv,.avif";

interface Props {
  workspace: string;
  watermark: Watermark;
  adding: Adding;
  chosen: string | null;
  choose: (picture: string) => void;
}

/** All pictures: what they are, how the mark stands out on each, and how far each is. */
export function Pictures({ workspace, watermark, adding, chosen, choose }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [all, setAll] = useState(false);
  const { entries } = watermark;
  const ordered = useOrdered(entries);
  const marking = isMarking(watermark);
  return (
    <section aria-label="Pictures">
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept={TAKEN}
        aria-label="Choose pictures"
        onChange={(event) => {
          adding.add([...(event.target.files ?? [])]);
          event.target.value = "";
        }}
      />
      {entries.length === 0 ? (
        <div className="grid min-h-[300px] place-items-center border border-dashed border-strong p-8 text-center">
          <div>
            <p className="text-[18px]">Drop pictures, clips or a whole folder here</p>
            <p className="mt-1 mb-4 text-[13px] text-soft">
              Up to {watermark.most} at a time: JPEG, PNG, WebP, AVIF, GIF, and clips, which become MP4.
            </p>
            <Button look="next" onClick={() => input.current?.click()}>
              Choose pictures
            </Button>
          </div>
        </div>
      ) : (
        <>
          <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-strong pb-1.5">
            <h2 className="text-[16px]">The pictures</h2>
            <span className="text-[13px] text-soft">weakest first</span>
            {!marking && (
              <Button look="bare" className="ml-auto" onClick={() => input.current?.click()}>
                Add more
              </Button>
            )}
          </div>
          <table className="w-full text-left text-[13px]">
            <thead className="sr-only">
              <tr>
                <th>Picture</th>
                <th>Size</th>
                <th>Stands out</th>
                <th>State</th>
                <th>Take out</th>
              </tr>
            </thead>
            <tbody>
              {(all ? ordered : ordered.slice(0, SHOWN)).map((picture) => (
                <Row
                  key={picture.id}
                  workspace={workspace}
                  watermark={watermark}
                  picture={picture}
                  chosen={picture.id === chosen}
                  choose={choose}
                />
              ))}
            </tbody>
          </table>
          {ordered.length > SHOWN && !all && (
            <Button look="bare" onClick={() => setAll(true)}>
              Show all {ordered.length} pictures
            </Button>
          )}
        </>
      )}
    </section>
  );
}

/** Those that could not be marked first, then those on which the mark is seen least. */
function useOrdered(entries: MarkedPicture[]): MarkedPicture[] {
  const rank = (picture: MarkedPicture) =>
    picture.state === "failed" ? -1 : (picture.contrast ?? Number.MAX_SAFE_INTEGER);
  return [...entries].sort((one, other) => rank(one) - rank(other));
}

interface RowProps {
  workspace: string;
  watermark: Watermark;
  picture: MarkedPicture;
  chosen: boolean;
  choose: (picture: string) => void;
}

function Row({ workspace, watermark, picture, chosen, choose }: RowProps) {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: () => removePicture(workspace, watermark.id, picture.id),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "watermarks"] }),
  });
  return (
    <tr
      className={`border-b border-hairline align-baseline max-sm:grid max-sm:py-1 ${chosen ? "bg-sheet" : ""}`}
    >
      <td className="min-w-44 py-1.5 pr-4">
        <button
          type="button"
          disabled={picture.contrast === null}
          aria-pressed={chosen}
          onClick={() => choose(picture.id)}
          className="min-h-6 text-left font-semibold [overflow-wrap:anywhere] enabled:hover:underline"
        >
          {picture.name}
        </button>
      </td>
      <td className="figure pr-4 whitespace-nowrap text-measure">
        {picture.width ? `${picture.width} × ${picture.height}` : ""}
      </td>
      <td className="pr-4">
        {picture.state !== "failed" && <StandsOut picture={picture} least={watermark.least_seen} />}
      </td>
      <td className="min-w-32">
        <Standing workspace={workspace} watermark={watermark.id} picture={picture} />
        {remove.error && <span className="text-refused">{remove.error.message}</span>}
      </td>
      <td className="text-right">
        {!isMarking(watermark) && (
          <button
            type="button"
            aria-label={`Take ${picture.name} out`}
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
            className="inline-grid size-6 place-items-center text-soft hover:text-ink"
          >
            <X aria-hidden size={14} />
          </button>
        )}
      </td>
    </tr>
  );
}

function Standing({
  workspace,
  watermark,
  picture,
}: {
  workspace: string;
  watermark: string;
  picture: MarkedPicture;
}) {
  if (picture.state === "failed")
    return (
      <span className="flex items-start gap-1.5 text-refused">
        <OctagonX aria-hidden size={13} strokeWidth={2.6} className="mt-[3px] shrink-0" />
        {picture.message}
      </span>
    );
  if (picture.state === "done")
    return (
      <span className="flex flex-wrap items-baseline gap-x-2">
        <a
          href={markedFileUrl(workspace, watermark, picture.id)}
          download
          className="inline-flex min-h-6 items-center gap-1.5 text-fits hover:underline"
        >
          <Check aria-hidden size={13} strokeWidth={2.6} />
          {picture.made_as === picture.name ? "marked" : picture.made_as}
        </a>
        <span className="figure text-soft">{picture.made_weight}</span>
      </span>
    );
  return <span className="text-soft">{WORDS[picture.state]}</span>;
}

const WORDS: Record<string, string> = {
  reading: "being looked at",
  ready: "",
  waiting: "waits for its turn",
};
