import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";

import {
  fileUrl,
  historyQuery,
  pictureUrl,
  sayLive,
  takeBack,
  type RecordPlace,
} from "../../api/deliveryQueries";
import type { Schemas } from "../../api/client";
import { day, moment } from "../../measure/days";
import { Button } from "../../ui/Button";
import { DialogFrame } from "../../ui/DialogFrame";
import { Problem } from "../../ui/Trouble";

interface Props {
  workspace: string;
  place: RecordPlace;
  close: () => void;
}

/** What stood in a place, the newest first: saved again, taken back, or noted as taken down. */
export function History({ workspace, place, close }: Props) {
  const history = useQuery(historyQuery(workspace, place.placement));
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <DialogFrame title={`${place.name}, file by file`}>
        <ul aria-label="Earlier files">
          {history.data?.map((entry, index) => (
            <Entry
              key={entry.id}
              workspace={workspace}
              entry={entry}
              ground={place.ground}
              last={index === 0}
            />
          ))}
        </ul>
        {history.error && <Problem message={history.error.message} />}
      </DialogFrame>
    </Dialog.Root>
  );
}

interface EntryProps {
  workspace: string;
  entry: Schemas["HistoryEntry"];
  ground: string;
  last: boolean;
}

function Entry({ workspace, entry, ground, last }: EntryProps) {
  const queries = useQueryClient();
  const refresh = { onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }) };
  const back = useMutation({ mutationFn: () => takeBack(workspace, entry.id), ...refresh });
  const down = useMutation({
    mutationFn: () => sayLive(workspace, entry.id, Boolean(entry.down_at || !entry.live_at)),
    ...refresh,
  });
  const trouble = back.error ?? down.error;
  const isLive = entry.live_at && !entry.down_at;
  return (
    <li className="grid grid-cols-[96px_minmax(0,1fr)_auto] items-center gap-x-5 border-b border-hairline py-3 text-[13px] max-sm:grid-cols-[72px_minmax(0,1fr)]">
      {entry.picture ? (
        <img
          src={pictureUrl(workspace, entry.id)}
          alt=""
          loading="lazy"
          style={{ background: ground }}
          className="max-h-20 max-w-full justify-self-center object-contain"
        />
      ) : (
        <span />
      )}
      <div className="min-w-0">
        <a href={fileUrl(workspace, entry.id)} className="font-semibold break-all hover:underline">
          {entry.name}
        </a>
        <p className="text-soft">
          {moment(entry.made_at)}
          {entry.by && `, by ${entry.by}`}; {entry.subject}, revision {entry.piece_revision}
        </p>
        <p className="figure text-[12px] text-soft">
          {entry.width} × {entry.height}, {entry.weight}
          {isLive && <span className="text-fits"> · live since {day(entry.live_at!)}</span>}
          {entry.down_at && ` · taken down on ${day(entry.down_at)}`}
        </p>
        {trouble && <Problem message={trouble.message} />}
      </div>
      <div className="flex flex-col items-end gap-1 max-sm:col-start-2 max-sm:items-start">
        {!last && (
          <Button look="quiet" disabled={back.isPending} onClick={() => back.mutate()}>
            Take it back
          </Button>
        )}
        <Button look="bare" disabled={down.isPending} onClick={() => down.mutate()}>
          {isLive ? "It is taken down" : "It is live"}
        </Button>
      </div>
    </li>
  );
}
