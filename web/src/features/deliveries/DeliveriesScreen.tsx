import { useQuery } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { Link, useParams } from "react-router";

import type { Schemas } from "../../api/client";
import { deliveriesQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { State } from "../../ui/State";
import { Trouble } from "../../ui/Trouble";

type Delivery = Schemas["DeliveryOut"];
type DeliveredFile = Schemas["DeliveredFileOut"];

export function DeliveriesScreen() {
  const { workspace = "" } = useParams();
  const deliveries = useQuery(deliveriesQuery(workspace));
  if (deliveries.error && !deliveries.data) return <Trouble error={deliveries.error} />;
  if (!deliveries.data) return <main aria-busy className="px-7 py-10" />;
  const stale = deliveries.data[0]?.files.filter((file) => file.out_of_date).length ?? 0;
  return (
    <main className="px-7 pt-4 pb-10">
      <h1 className="text-[26px] leading-9">{headline(deliveries.data.length, stale)}</h1>
      {deliveries.data.length === 0 && (
        <p className="mt-3 text-soft">
          <Link to={`/w/${workspace}`} className="font-semibold text-measure underline">
            Go to the wall
          </Link>{" "}
          and deliver what fits: you get correctly named files, and this record of what went where.
        </p>
      )}
      {deliveries.data.map((delivery) => (
        <Record key={delivery.id} delivery={delivery} workspace={workspace} />
      ))}
    </main>
  );
}

function headline(count: number, stale: number): string {
  if (count === 0) return "Nothing delivered yet.";
  const what = plural(count, "delivery", "deliveries");
  return stale
    ? `${what}; ${plural(stale, "file has", "files have")} changed since.`
    : `${what}, all up to date.`;
}

function Record({ delivery, workspace }: { delivery: Delivery; workspace: string }) {
  const base = `/api/workspaces/${workspace}/deliveries`;
  const when = new Date(delivery.made_at);
  return (
    <section className="mt-7">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b-2 border-strong pb-1.5">
        <h2 className="text-[16px]">
          {when.toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" })},{" "}
          {when.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}
        </h2>
        <span className="text-soft">
          {plural(delivery.files.length, "file", "files")} by {delivery.by}
        </span>
        <a
          href={`${base}/${delivery.id}/zip`}
          className="ml-auto min-h-6 font-semibold text-measure hover:underline"
        >
          Save all as ZIP
        </a>
      </div>
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
          {delivery.files.map((file) => (
            <Row key={file.id} file={file} base={base} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function UpToDate() {
  return (
    <span className="flex items-center gap-1.5 text-[12px] font-semibold text-fits">
      <Check aria-hidden size={13} strokeWidth={2.6} />
      up to date
    </span>
  );
}

function Row({ file, base }: { file: DeliveredFile; base: string }) {
  return (
    <tr className="border-b border-hairline align-baseline max-sm:grid max-sm:py-1">
      <td className="py-1.5 pr-4">
        <span className="text-soft">{file.folder}/</span>
        <a href={`${base}/files/${file.id}`} className="inline-block min-h-6 font-semibold hover:underline">
          {file.name}
        </a>
      </td>
      <td className="pr-4">
        {file.destination_name}, {file.placement_name}
        {file.muted.map((one) => (
          <span key={one.rule} title={one.message} className="block text-[12px] text-soft">
            left as it is: {one.reason}
          </span>
        ))}
      </td>
      <td className="figure pr-4 text-measure">
        {file.width} × {file.height}
      </td>
      <td className="figure pr-4 text-soft">{file.weight}</td>
      <td>{file.out_of_date ? <State state="out of date" why="changed since" /> : <UpToDate />}</td>
    </tr>
  );
}
