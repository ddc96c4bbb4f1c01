import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { save } from "../../api/actions";

import {
  deliveriesQuery,
  isUnderWay,
  recordQuery,
  zipUrl,
  type Delivery,
  type RecordShelf,
} from "../../api/deliveryQueries";
import { plural } from "../../measure/words";
import { Trouble } from "../../ui/Trouble";
import { HandedOver } from "./HandedOver";
import { Live } from "./Live";

/** What is live where, what is out of date, and everything that was handed over. */
export function DeliveriesScreen() {
  const { workspace = "" } = useParams();
  const deliveries = useQuery(deliveriesQuery(workspace));
  useSavedOnceDone(workspace, deliveries.data);
  const state = deliveries.data?.map((one) => `${one.id}/${one.state}`).join() ?? "";
  const record = useQuery({ ...recordQuery(workspace, state), enabled: deliveries.data !== undefined });
  const error = deliveries.error ?? record.error;
  if (error && !(deliveries.data && record.data)) return <Trouble error={error} />;
  if (!deliveries.data || !record.data) return <main aria-busy className="px-7 py-10" />;
  const stale = record.data.flatMap((shelf) => shelf.places).filter((place) => place.out_of_date).length;
  return (
    <main className="px-7 pt-4 pb-10">
      <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
        <h1 className="text-[26px] leading-9">{headline(deliveries.data, record.data)}</h1>
        {stale > 0 && (
          <Link
            to={`/w/${workspace}/deliver`}
            className="ml-auto inline-flex min-h-8 items-center rounded-[3px] border border-next bg-next px-3 py-1 text-[13px] font-semibold text-on-next hover:opacity-90"
          >
            Deliver what changed
          </Link>
        )}
      </div>
      {deliveries.data.length === 0 && (
        <p className="mt-3 text-soft">
          <Link to={`/w/${workspace}/deliver`} className="font-semibold text-measure underline">
            Hand over what fits
          </Link>
          : you get correctly named files, and this record of what went where.
        </p>
      )}
      {deliveries.data.filter(isUnderWay).map((delivery) => (
        <HandedOver key={delivery.id} delivery={delivery} workspace={workspace} />
      ))}
      {record.data.length > 0 && <Live workspace={workspace} shelves={record.data} />}
      {deliveries.data
        .filter((delivery) => !isUnderWay(delivery))
        .map((delivery) => (
          <HandedOver key={delivery.id} delivery={delivery} workspace={workspace} />
        ))}
    </main>
  );
}

/** The ZIP of a delivery that was just asked for is saved as soon as all of it is there. */
function useSavedOnceDone(workspace: string, deliveries: Delivery[] | undefined) {
  const queries = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const wanted = deliveries?.find((one) => one.id === search.get("new"));
  const ended = wanted && !isUnderWay(wanted) ? wanted : undefined;
  useEffect(() => {
    if (!ended) return;
    setSearch({}, { replace: true });
    void queries.invalidateQueries({ queryKey: [workspace] });
    const all = ended.files.every((file) => file.state === "done");
    if (ended.way === "zip" && ended.state === "done" && all) save(zipUrl(workspace, ended.id));
  }, [ended, queries, setSearch, workspace]);
}

function headline(deliveries: Delivery[], shelves: RecordShelf[]): string {
  if (deliveries.length === 0) return "Nothing delivered yet.";
  if (deliveries.some(isUnderWay)) return "Handing over.";
  const what = plural(deliveries.length, "delivery", "deliveries");
  const places = shelves.flatMap((shelf) => shelf.places);
  const stale = places.filter((place) => place.out_of_date).length;
  const failed = deliveries[0]?.files.filter((file) => file.state === "failed").length ?? 0;
  if (failed) return `${what}; ${plural(failed, "file was", "files were")} not handed over.`;
  return stale
    ? `${what}; ${plural(stale, "place shows", "places show")} another file by now.`
    : `${what}, all up to date.`;
}
