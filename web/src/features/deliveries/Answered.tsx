import { Dialog } from "radix-ui";
import { Link } from "react-router";

import { answerTo, pictureUrl, shownUrl, type DeliveredFile } from "../../api/deliveryQueries";
import { DialogFrame } from "../../ui/DialogFrame";

/** What a destination said of an upload, beside what Fitzle said; and what it shows now. */
export function Answered({ workspace, file }: { workspace: string; file: DeliveredFile }) {
  const answer = answerTo(file);
  return (
    <div className="text-[12px] text-soft">
      {!answer.agree && (
        <p className="font-semibold text-risky">
          {answer.taken
            ? "Taken there; Fitzle would have refused it"
            : `Refused there; Fitzle says: ${answer.ours}`}
        </p>
      )}
      <p className="flex flex-wrap gap-x-3">
        {answer.shown && <span>{answer.shown.words}</span>}
        {answer.page && (
          <a href={answer.page} target="_blank" rel="noreferrer" className="text-measure hover:underline">
            Its page
          </a>
        )}
        {answer.picture && <Beside workspace={workspace} file={file} />}
      </p>
    </div>
  );
}

/** The file and what is shown of it, next to each other. */
function Beside({ workspace, file }: { workspace: string; file: DeliveredFile }) {
  const answer = answerTo(file);
  const pictures: [string, string][] = [
    ["The file", pictureUrl(workspace, file.id)],
    ["As it is shown there", shownUrl(workspace, file.id)],
  ];
  return (
    <Dialog.Root>
      <Dialog.Trigger className="text-measure hover:underline">Side by side</Dialog.Trigger>
      <DialogFrame
        wide
        title={`${file.placement_name}, as it was sent and as it is shown`}
        foot={
          <Link
            to={`/w/${workspace}/places/show?file=${file.id}`}
            className="mr-auto text-[13px] font-semibold text-measure hover:underline"
          >
            Learn the place from a screenshot of its page
          </Link>
        }
      >
        <div className="mt-4 grid items-end gap-6 sm:grid-cols-2">
          {pictures.map(([words, address]) => (
            <figure key={words} className="min-w-0">
              <img
                src={address}
                alt={words}
                className="max-h-[52vh] max-w-full border border-hairline object-contain"
              />
              <figcaption className="pt-1 text-[13px]">{words}</figcaption>
            </figure>
          ))}
        </div>
        <dl className="mt-4 grid grid-cols-[120px_1fr] gap-y-1 text-[13px]">
          <dt className="text-soft">Measured</dt>
          <dd>{answer.shown?.words ?? "no picture to compare"}</dd>
          <dt className="text-soft">Fitzle said</dt>
          <dd>{answer.ours}</dd>
          <dt className="text-soft">It said</dt>
          <dd>{answer.taken ? "taken" : (answer.said ?? []).join(" ")}</dd>
        </dl>
      </DialogFrame>
    </Dialog.Root>
  );
}
