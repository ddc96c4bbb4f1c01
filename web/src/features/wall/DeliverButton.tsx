import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";

import { deliver, save } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { readyQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { State } from "../../ui/State";
import { Problem } from "../../ui/Trouble";

/** Opens the list of what a delivery hands over: what changed since the last one, else all that fits. */
export function DeliverButton({ wall, workspace }: { wall: Schemas["Wall"]; workspace: string }) {
  const [open, setOpen] = useState(false);
  const changed = wall.changed > 0;
  if (wall.deliverable === 0) return null;
  const words = !changed
    ? `Deliver all ${wall.deliverable} again`
    : wall.changed === wall.deliverable
      ? `Deliver all ${wall.changed}`
      : `Deliver ${wall.changed} that changed`;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look={changed ? "next" : "plain"}>{words}…</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[8vh] left-1/2 z-40 flex max-h-[84vh] w-[min(720px,94vw)] -translate-x-1/2 flex-col border border-ink bg-sheet p-6 max-sm:p-4"
        >
          <Ready workspace={workspace} changed={changed} close={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface ReadyProps {
  workspace: string;
  changed: boolean;
  close: () => void;
}

/** The files by name, size and weight, and the one button that hands them over. */
function Ready({ workspace, changed, close }: ReadyProps) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const ready = useQuery(readyQuery(workspace, changed));
  const hand = useMutation({
    mutationFn: () => deliver(workspace, null, changed),
    onSuccess: async (delivery) => {
      close();
      save(`/api/workspaces/${workspace}/deliveries/${delivery.id}/zip`);
      await queries.invalidateQueries({ queryKey: [workspace] });
      await navigate(`/w/${workspace}/deliveries`);
    },
  });
  const files = ready.data?.files ?? [];
  const trouble = ready.error ?? hand.error;
  return (
    <>
      <Dialog.Title className="text-lg">
        {ready.data ? `${plural(files.length, "file", "files")}, ${ready.data.weight} together` : "Looking…"}
      </Dialog.Title>
      <div className="mt-3 min-h-16 overflow-y-auto" tabIndex={0} role="region" aria-label="Files to deliver">
        <table className="w-full text-left text-[13px]">
          <thead className="border-b-2 border-strong font-heading max-sm:sr-only">
            <tr>
              <th className="pb-1 font-semibold">Place</th>
              <th className="pb-1 font-semibold">File</th>
              <th className="pb-1 font-semibold">Size</th>
              <th className="pb-1 font-semibold">Weight</th>
              <th className="pb-1 font-semibold">State</th>
            </tr>
          </thead>
          <tbody>
            {files.map((file) => (
              <Row key={file.fit} file={file} />
            ))}
          </tbody>
        </table>
      </div>
      {ready.data && ready.data.left_out.length > 0 && (
        <p className="mt-3 text-[13px] text-soft">Not among them: {ready.data.left_out.join(", ")}.</p>
      )}
      <div className="mt-5 flex flex-wrap items-center justify-end gap-3">
        {trouble && <Problem message={trouble.message} />}
        <Dialog.Close asChild>
          <Button>Not now</Button>
        </Dialog.Close>
        <Button look="next" disabled={files.length === 0 || hand.isPending} onClick={() => hand.mutate()}>
          Deliver {plural(files.length, "file", "files")}
        </Button>
      </div>
    </>
  );
}

function Row({ file }: { file: Schemas["ReadyFileOut"] }) {
  return (
    <tr className="border-b border-hairline align-baseline max-sm:grid max-sm:py-1.5">
      <td className="py-1.5 pr-3 max-sm:py-0">{file.placement_name}</td>
      <td className="pr-3 break-all">
        <span className="text-soft">{file.folder}/</span>
        <b className="font-semibold">{file.name}</b>
      </td>
      <td className="figure pr-3 whitespace-nowrap text-measure">
        {file.width} × {file.height}
      </td>
      <td className="figure pr-3 whitespace-nowrap text-soft">{file.weight}</td>
      <td>
        <State state={file.state} />
      </td>
    </tr>
  );
}
