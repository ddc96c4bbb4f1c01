import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Ban, Check, Clock3, OctagonX } from "lucide-react";
import { useState } from "react";

import {
  cancelDelivery,
  fileUrl,
  goOnWith,
  isUnderWay,
  zipUrl,
  type DeliveredFile,
  type Delivery,
} from "../../api/deliveryQueries";
import { moment } from "../../measure/days";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Answered } from "./Answered";
import { State } from "../../ui/State";
import { Problem } from "../../ui/Trouble";

const SHOWN = 12; // files of a delivery that are listed at once

interface Props {
  delivery: Delivery;
  workspace: string;
}

/** One delivery: how far it is, what went where, and what did not. */
export function HandedOver({ delivery, workspace }: Props) {
  const queries = useQueryClient();
  const [all, setAll] = useState(false);
  const refresh = { onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }) };
  const stop = useMutation({ mutationFn: () => cancelDelivery(workspace, delivery.id), ...refresh });
  const again = useMutation({ mutationFn: () => goOnWith(workspace, delivery.id), ...refresh });
  const { files } = delivery;
  const done = files.filter((file) => file.state === "done").length;
  const left = files.filter((file) => file.state === "failed" || file.state === "cancelled").length;
  const running = isUnderWay(delivery);
  const trouble = stop.error ?? again.error;
  return (
    <section className="mt-7" aria-label={`Delivery of ${moment(delivery.made_at)}`}>
      <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-strong pb-1.5">
        <h2 className="text-[16px]">{moment(delivery.made_at)}</h2>
        <span className="text-soft" role={running ? "status" : undefined}>
          {running ? `${done} of ${files.length} handed over` : summary(delivery, done, left)}
        </span>
        <span className="ml-auto flex flex-wrap items-baseline gap-x-4">
          {trouble && <Problem message={trouble.message} />}
          {running && (
            <Button look="bare" disabled={stop.isPending} onClick={() => stop.mutate()}>
              Stop
            </Button>
          )}
          {left > 0 && !running && (
            <Button look="bare" disabled={again.isPending} onClick={() => again.mutate()}>
              Try the other {left === 1 ? "one" : left} again
            </Button>
          )}
          {done > 0 && !running && delivery.way === "zip" && (
            <a
              href={zipUrl(workspace, delivery.id)}
              className="min-h-6 text-[13px] font-semibold text-measure hover:underline"
            >
              Save all as ZIP
            </a>
          )}
        </span>
      </div>
      {running && (
        <div
          aria-hidden
          className="h-1 bg-measure"
          style={{ width: `${(100 * done) / Math.max(1, files.length)}%` }}
        />
      )}
      <table className="w-full text-left text-[13px]">
        <thead className="sr-only">
          <tr>
            <th>File</th>
            <th>Place</th>
            <th>Size</th>
            <th>Weight</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          {(all ? files : files.slice(0, SHOWN)).map((file) => (
            <Row key={file.id} file={file} workspace={workspace} />
          ))}
        </tbody>
      </table>
      {files.length > SHOWN && !all && (
        <Button look="bare" onClick={() => setAll(true)}>
          Show all {files.length} files
        </Button>
      )}
    </section>
  );
}

function summary(delivery: Delivery, done: number, left: number): string {
  const where =
    delivery.way === "folder" ? ` into ${delivery.target}` : delivery.way === "upload" ? " uploaded" : "";
  const what = `${plural(done, "file", "files")}${where} by ${delivery.by}`;
  if (delivery.state === "cancelled") return `${what}, then stopped`;
  return left ? `${what}; ${plural(left, "was", "were")} not handed over` : what;
}

function Row({ file, workspace }: { file: DeliveredFile; workspace: string }) {
  return (
    <tr className="border-b border-hairline align-baseline max-sm:grid max-sm:py-1">
      <td className="py-1.5 pr-4">
        <span className="text-soft">{file.folder && `${file.folder}/`}</span>
        {file.state === "done" ? (
          <a
            href={fileUrl(workspace, file.id)}
            className="inline-block min-h-6 font-semibold hover:underline"
          >
            {file.name}
          </a>
        ) : (
          <span>{file.name}</span>
        )}
      </td>
      <td className="pr-4">
        {file.destination_name}, {file.placement_name}
        {file.muted.map((one) => (
          <span key={one.rule} title={one.message} className="block text-[12px] text-soft">
            left as it is: {one.reason}
          </span>
        ))}
      </td>
      <td className="figure pr-4 whitespace-nowrap text-measure">
        {file.width ? `${file.width} × ${file.height}` : ""}
      </td>
      <td className="figure pr-4 whitespace-nowrap text-soft">{file.weight}</td>
      <td className="min-w-32">
        <Standing file={file} />
        {file.answer.taken !== undefined && <Answered workspace={workspace} file={file} />}
      </td>
    </tr>
  );
}

function Standing({ file }: { file: DeliveredFile }) {
  if (file.state === "failed")
    return (
      <span className="flex gap-1.5 text-[12px] font-semibold text-refused">
        <OctagonX aria-hidden size={13} strokeWidth={2.6} className="mt-0.5 shrink-0" />
        <span>not handed over: {file.message}</span>
      </span>
    );
  if (file.state === "cancelled") return <Word symbol={Ban} words="stopped before it" />;
  if (file.state === "waiting") return <Word symbol={Clock3} words="waits" />;
  if (file.out_of_date) return <State state="out of date" why="changed since" />;
  return (
    <span className="flex items-center gap-1.5 text-[12px] font-semibold text-fits">
      <Check aria-hidden size={13} strokeWidth={2.6} />
      {file.written === "unchanged" ? "was there already" : "up to date"}
    </span>
  );
}

function Word({ symbol: Symbol, words }: { symbol: typeof Ban; words: string }) {
  return (
    <span className="flex items-center gap-1.5 text-[12px] text-soft">
      <Symbol aria-hidden size={13} strokeWidth={2.2} />
      {words}
    </span>
  );
}
