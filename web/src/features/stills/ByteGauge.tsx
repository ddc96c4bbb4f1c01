import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { loopPlacesQuery, loopWeightQuery, type Cut } from "../../api/clipActions";
import type { Schemas } from "../../api/client";
import { Select } from "../../ui/fields";

const FOLLOWS_MS = 90; // behind a hand that drags
const RESTS_MS = 700;
const BEYOND = 1.5; // times the limit that the gauge shows

interface Props {
  workspace: string;
  artwork: string;
  begin: number;
  end: number;
  closing: Cut["closing"];
}

/** What the part weighs in a place, beside its limit: foreseen while a hand drags, measured once it rests. */
export function ByteGauge({ workspace, artwork, ...cut }: Props) {
  const places = useQuery(loopPlacesQuery(workspace, artwork)).data ?? [];
  const [chosen, setChosen] = useState("");
  const place = places.find((one) => one.name === chosen) ?? places[0];
  if (!place) return null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1.5 border-t border-hairline pt-2 text-[13px]">
      <span aria-hidden className="text-soft">
        as the file of
      </span>
      <Select
        label="The place that it is weighed for"
        options={places.map((one) => one.name)}
        value={place.name}
        choose={setChosen}
      />
      <Weight workspace={workspace} artwork={artwork} place={place} {...cut} />
      <span className="basis-full text-[12px] text-soft">
        Where it looks well: {place.made}. Above the limit the file is made to fit and looks worse.
      </span>
    </div>
  );
}

function Weight({ workspace, artwork, place, ...cut }: Props & { place: Schemas["TrimPlace"] }) {
  const following = useDelayed(cut, FOLLOWS_MS);
  const resting = useDelayed(cut, RESTS_MS);
  const rests = JSON.stringify(resting) === JSON.stringify(cut);
  const asked = { placement: place.id, ...following };
  const foreseen = useQuery({
    ...loopWeightQuery(workspace, artwork, { ...asked, make: false }),
    placeholderData: keepPreviousData,
  });
  const made = useQuery({
    ...loopWeightQuery(workspace, artwork, { placement: place.id, ...resting, make: true }),
    enabled: rests && foreseen.isSuccess,
  });
  const weight = (rests && made.data) || foreseen.data;
  if (!weight) {
    return (
      <span role="status" className="text-soft">
        {foreseen.error ? foreseen.error.message : "Weighing it…"}
      </span>
    );
  }
  const colour = weight.fits ? "text-fits" : "text-risky";
  const share = weight.limit ? Math.min(weight.bytes / weight.limit, BEYOND) : 0;
  return (
    <span role="status" className="flex items-center gap-3">
      {weight.limit && (
        <span aria-hidden className={`relative h-[9px] w-60 bg-gauge ${colour}`}>
          <span className="block h-full bg-current" style={{ width: `${(share / BEYOND) * 100}%` }} />
          <span className="absolute -inset-y-1 border-l-2 border-ink" style={{ left: `${100 / BEYOND}%` }} />
        </span>
      )}
      <span className={`figure ${colour}`}>
        {weight.measured ? "" : "about "}
        {weight.words}
      </span>
    </span>
  );
}

/** The value as it was so long ago at least: of many changes only the last one counts. */
function useDelayed<T>(value: T, milliseconds: number): T {
  const [late, setLate] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setLate(JSON.parse(text) as T), milliseconds);
    return () => clearTimeout(timer);
  }, [text, milliseconds]);
  return late;
}
