import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";

import { deliver, readyQuery, type Ready, type ReadyFit } from "../../api/deliveryQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem, Trouble } from "../../ui/Trouble";
import { How, type Choices } from "./How";
import { ReadyRow } from "./ReadyRow";

/** What is handed over, under which names, with what the upload forms ask for, and how. */
export function DeliverScreen() {
  const { workspace = "" } = useParams();
  const [how, setHow] = useState<Choices>({ way: "zip", folder: "", flat: false });
  const ready = useQuery(readyQuery(workspace, how.flat));
  if (ready.error && !ready.data) return <Trouble error={ready.error} />;
  if (!ready.data) return <main aria-busy className="px-7 py-10" />;
  return <Choosing workspace={workspace} ready={ready.data} how={how} setHow={setHow} />;
}

interface ChoosingProps {
  workspace: string;
  ready: Ready;
  how: Choices;
  setHow: (how: Choices) => void;
}

function Choosing({ workspace, ready, how, setHow }: ChoosingProps) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const changed = ready.fits.filter((fit) => fit.changed);
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const usual = changed.length ? changed : ready.fits;
  const chosen = picked ? ready.fits.filter((fit) => picked.has(fit.fit)) : usual;
  const pick = (fits: ReadyFit[]) => setPicked(new Set(fits.map((fit) => fit.fit)));
  const hand = useMutation({
    mutationFn: () => deliver(workspace, { fits: chosen.map((fit) => fit.fit), changed: false, ...how }),
    onSuccess: async (delivery) => {
      await queries.invalidateQueries({ queryKey: [workspace] });
      await navigate(`/w/${workspace}/deliveries?new=${delivery.id}`);
    },
  });
  const count = chosen.reduce((sum, fit) => sum + fit.files.length, 0);
  const held = chosen.filter((fit) => fit.trouble);
  const nowhere = how.way === "upload" ? chosen.filter((fit) => !fit.upload) : [];
  return (
    <main className="px-7 pt-4 pb-24">
      <h1 className="text-[26px] leading-9">{headline(ready, changed.length)}</h1>
      {ready.left_out.length > 0 && (
        <p className="mt-1 text-[13px] text-soft">
          Not among them:{" "}
          {ready.left_out.map((one) => (one.why ? `${one.name} (${one.why})` : one.name)).join(", ")}.
        </p>
      )}
      {ready.fits.length > 0 && (
        <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-7 lg:grid-cols-[minmax(0,1fr)_288px]">
          <div className="min-w-0">
            <Picking ready={ready} changed={changed} chosen={chosen} pick={pick} />
            <ul aria-label="Files to deliver">
              {ready.fits.map((fit) => (
                <ReadyRow
                  key={fit.fit}
                  workspace={workspace}
                  fit={fit}
                  uploads={how.way === "upload"}
                  chosen={chosen.includes(fit)}
                  toggle={() =>
                    pick(chosen.includes(fit) ? chosen.filter((one) => one !== fit) : [...chosen, fit])
                  }
                />
              ))}
            </ul>
          </div>
          <aside className="content-start lg:sticky lg:top-4 lg:self-start">
            <How ready={ready} how={how} set={setHow} />
            {held.length > 0 && (
              <p className="mt-4 border-l-2 border-risky pl-3 text-[13px] text-risky">
                {plural(held.length, "form is", "forms are")} not filled in as the place wants it. The file
                can go; the form has to be filled in there.
              </p>
            )}
            {nowhere.length > 0 && (
              <p className="mt-4 border-l-2 border-risky pl-3 text-[13px] text-risky">
                Nothing can be uploaded to {nowhere.map((fit) => fit.placement_name).join(", ")} from here.
              </p>
            )}
            {hand.error && (
              <div className="mt-4">
                <Problem message={hand.error.message} onDismiss={hand.reset} />
              </div>
            )}
            <Button
              look="next"
              className="mt-5 w-full justify-center"
              disabled={count === 0 || hand.isPending}
              onClick={() => hand.mutate()}
            >
              {hand.isPending ? "Handing over…" : `Deliver ${plural(count, "file", "files")}`}
            </Button>
          </aside>
        </div>
      )}
    </main>
  );
}

function headline(ready: Ready, changed: number): string {
  const count = ready.fits.length;
  if (count === 0) return "There is nothing to hand over yet.";
  const what = `${plural(count, "place has a file", "places have files")} to hand over, ${ready.weight} together`;
  if (changed === 0) return `${what}; nothing changed since.`;
  return changed === count ? `${what}.` : `${what}; ${changed} changed since.`;
}

interface PickingProps {
  ready: Ready;
  changed: ReadyFit[];
  chosen: ReadyFit[];
  pick: (fits: ReadyFit[]) => void;
}

function Picking({ ready, changed, chosen, pick }: PickingProps) {
  const same = (fits: ReadyFit[]) =>
    fits.length === chosen.length && fits.every((fit) => chosen.includes(fit));
  const ways: [string, ReadyFit[]][] = [
    [`All that fit (${ready.fits.length})`, ready.fits],
    [`What changed (${changed.length})`, changed],
    ["None", []],
  ];
  return (
    <div
      role="group"
      aria-label="Choose"
      className="flex flex-wrap gap-x-5 border-b-2 border-strong pb-2 text-[13px]"
    >
      <select
        aria-label="One destination"
        value=""
        onChange={(event) => pick(ready.fits.filter((fit) => fit.destination_name === event.target.value))}
        className="order-last ml-auto min-h-6 border-b border-ink bg-transparent [&>option]:bg-sheet"
      >
        <option value="">One destination…</option>
        {[...new Set(ready.fits.map((fit) => fit.destination_name))].map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
      {ways.map(([words, fits]) => (
        <button
          key={words}
          type="button"
          aria-pressed={same(fits)}
          onClick={() => pick(fits)}
          className={`min-h-6 border-b-2 ${same(fits) ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
