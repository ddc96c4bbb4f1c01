import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";

import { elsewhereProofUrl, elsewhereQuery, standElsewhere, type PlaceElsewhere } from "../../api/elsewhere";
import type { FitOut } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { DialogFrame } from "../../ui/DialogFrame";
import { Problem } from "../../ui/Trouble";

interface Props {
  fit: FitOut;
  workspace: string;
}

/** Puts the piece into other places: each shows how it would look there before anything is done. */
export function Elsewhere({ fit, workspace }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look="plain">Put it in other places</Button>
      </Dialog.Trigger>
      {open && <Places fit={fit} workspace={workspace} close={() => setOpen(false)} />}
    </Dialog.Root>
  );
}

function Places({ fit, workspace, close }: Props & { close: () => void }) {
  const queries = useQueryClient();
  const places = useQuery(elsewhereQuery(workspace, fit.id));
  const [chosen, setChosen] = useState<string[]>([]);
  const stand = useMutation({
    mutationFn: () => standElsewhere(workspace, fit.id, chosen),
    onSuccess: async () => {
      close();
      await queries.invalidateQueries({ queryKey: [workspace] });
    },
  });
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id]);
  const others = places.data?.filter((place) => !place.stands) ?? [];
  const empty = others.filter((place) => !place.holds).map((place) => place.id);
  return (
    <DialogFrame
      wide
      title={`${fit.piece.document.subject} in other places`}
      foot={
        <>
          {stand.error && <Problem message={stand.error.message} />}
          {empty.length > 0 && (
            <Button look="bare" onClick={() => setChosen(empty)}>
              Choose all empty ones
            </Button>
          )}
          <Button look="next" disabled={!chosen.length || stand.isPending} onClick={() => stand.mutate()}>
            {chosen.length ? `Put it in ${plural(chosen.length, "place", "places")}` : "Choose places"}
          </Button>
        </>
      }
    >
      <p className="text-[13px] text-soft">
        {fit.piece.document.composed
          ? "In each shape its parts are arranged by calculation, as shown."
          : "Its parts keep their boxes in every shape, as shown."}
      </p>
      {places.error && <Problem message={places.error.message} />}
      {places.data && others.length === 0 && <p className="pt-3 text-[13px]">It stands in every place.</p>}
      <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(128px,1fr))] gap-x-5 gap-y-5 px-1">
        {others.map((place) => (
          <Place
            key={place.id}
            place={place}
            src={elsewhereProofUrl(workspace, fit.id, place)}
            on={chosen.includes(place.id)}
            press={() => toggle(place.id)}
          />
        ))}
      </ul>
    </DialogFrame>
  );
}

interface PlaceProps {
  place: PlaceElsewhere;
  src: string;
  on: boolean;
  press: () => void;
}

function Place({ place, src, on, press }: PlaceProps) {
  return (
    <li>
      <button type="button" aria-pressed={on} onClick={press} className="group block w-full text-left">
        <span
          className={`flex h-28 items-end justify-start border-b-2 pb-2 ${on ? "border-measure" : "border-hairline"}`}
        >
          <img
            src={src}
            alt=""
            loading="lazy"
            className={`checker light-checker max-h-full max-w-full object-contain ${on ? "outline-2 outline-offset-2 outline-measure" : ""}`}
          />
        </span>
        <span
          className={`block pt-1.5 text-[13px] font-semibold group-hover:underline ${on ? "text-measure" : ""}`}
        >
          {place.name}
        </span>
        <span className="block text-[12px] text-soft">{place.destination}</span>
        <span className="figure block text-measure">{place.size}</span>
        <span className="block text-[12px] text-soft">
          {place.holds ? `takes the place of ${place.holds}` : "empty"}
        </span>
      </button>
    </li>
  );
}
