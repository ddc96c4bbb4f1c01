import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { useState } from "react";

import { fileUrl, pictureUrl, sayLive, type RecordPlace, type RecordShelf } from "../../api/deliveryQueries";
import { day } from "../../measure/days";
import { Button } from "../../ui/Button";
import { MovingImage, useLooked } from "../../ui/MovingImage";
import { State } from "../../ui/State";
import { Problem } from "../../ui/Trouble";
import { History } from "./History";

/** What people see where: the file, since when, and what is out of date. */
export function Live({ workspace, shelves }: { workspace: string; shelves: RecordShelf[] }) {
  const [open, setOpen] = useState<RecordPlace | null>(null);
  return (
    <section aria-label="What is live" className="mt-6">
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">What is live</h2>
      {shelves.map((shelf) => (
        <div
          key={shelf.name}
          className="grid gap-x-6 border-b border-hairline py-2 md:grid-cols-[168px_minmax(0,1fr)]"
        >
          <h3 className="pt-2 text-[13px] font-semibold">{shelf.name}</h3>
          <ul>
            {shelf.places.map((place) => (
              <Place key={place.placement} workspace={workspace} place={place} open={() => setOpen(place)} />
            ))}
          </ul>
        </div>
      ))}
      {open && <History workspace={workspace} place={open} close={() => setOpen(null)} />}
    </section>
  );
}

interface PlaceProps {
  workspace: string;
  place: RecordPlace;
  open: () => void;
}

function Place({ workspace, place, open }: PlaceProps) {
  const queries = useQueryClient();
  const { file, live } = place;
  const say = useMutation({
    mutationFn: (on: boolean) => sayLive(workspace, file.id, on),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }),
  });
  const isLive = live?.id === file.id;
  const [looked, handlers] = useLooked();
  return (
    <li
      {...handlers}
      className="grid grid-cols-[56px_minmax(0,1fr)_minmax(150px,auto)_auto] items-center gap-x-4 py-1.5 text-[13px] max-sm:grid-cols-[48px_minmax(0,1fr)]"
    >
      {file.picture ? (
        <MovingImage
          still={pictureUrl(workspace, file.id)}
          moving={`${pictureUrl(workspace, file.id)}?playing=true`}
          looked={looked}
          alt=""
          style={{ background: place.ground }}
          className="max-h-10 max-w-full justify-self-center object-contain"
        />
      ) : (
        <span />
      )}
      <span className="min-w-0">
        <span className="font-semibold">{place.name}</span>
        {place.capacity && (
          <span className="figure ml-3 text-soft">
            {place.slots} of {place.capacity} slots
          </span>
        )}
        <a
          href={fileUrl(workspace, file.id)}
          className="block min-h-5 break-all text-soft hover:text-ink hover:underline"
        >
          {file.name}
        </a>
      </span>
      <span className="max-sm:col-start-2">
        <Since place={place} />
      </span>
      <span className="flex flex-wrap items-center justify-end gap-x-4 max-sm:col-start-2 max-sm:justify-start">
        {!isLive && (
          <Button
            look="bare"
            disabled={say.isPending}
            onClick={() => say.mutate(true)}
            aria-label={`${place.name} is live`}
          >
            It is live
          </Button>
        )}
        <button
          type="button"
          onClick={open}
          aria-label={`History of ${place.name}`}
          className="min-h-7 text-soft hover:text-ink hover:underline"
        >
          History
        </button>
        {say.error && <Problem message={say.error.message} onDismiss={say.reset} />}
      </span>
    </li>
  );
}

function Since({ place }: { place: RecordPlace }) {
  const { file, live, out_of_date } = place;
  if (out_of_date)
    return <State state="out of date" why={live ? `live since ${day(live.live_at!)}` : "changed since"} />;
  if (live?.id === file.id)
    return (
      <span className="flex items-center gap-1.5 text-[12px] font-semibold text-fits">
        <Check aria-hidden size={13} strokeWidth={2.6} />
        live since {day(live.live_at!)}
      </span>
    );
  return (
    <span className="text-[12px] text-soft">
      {live ? "handed over; an earlier one is live" : "handed over, not confirmed yet"}
    </span>
  );
}
