import { useState } from "react";
import { Link, useParams } from "react-router";

import { save } from "../../api/actions";
import type { FitOut } from "../../api/client";
import { deliverAndWait, fileUrl, zipUrl } from "../../api/deliveryQueries";
import { Button } from "../../ui/Button";
import { HistoryStep } from "../../ui/HistoryStep";
import { SavedState } from "../../ui/SavedState";
import { Problem, Trouble } from "../../ui/Trouble";
import { ConflictDialog } from "./ConflictDialog";
import { HelpSheet } from "./HelpSheet";
import { Judgement } from "./Judgement";
import { Motion } from "./motion/Motion";
import { ALL_IN, type Time } from "./motion/time";
import { PartsPanel } from "./PartsPanel";
import { Rail } from "./Rail";
import { Seen } from "./Seen";
import { Stage } from "./stage/Stage";
import { useBench, type Bench } from "./useBench";

export function BenchScreen() {
  const { workspace = "", fit = "" } = useParams();
  const bench = useBench(workspace, fit);
  if (bench.error && !bench.fit) return <Trouble error={bench.error} />;
  if (!bench.fit) return <main aria-busy className="px-7 py-10" />;
  return (
    <main className="px-7 pt-3 pb-8">
      <TopLine bench={bench} workspace={workspace} />
      <div className="mt-4 grid gap-x-8 gap-y-8 md:grid-cols-[256px_minmax(0,1fr)] xl:grid-cols-[256px_minmax(0,1fr)_292px]">
        <div className="max-md:order-2">
          <PartsPanel bench={bench} fit={bench.fit} />
        </div>
        <div className="min-w-0 max-md:order-1">
          <Staged key={bench.fit.id} bench={bench} fit={bench.fit} />
          <Rail fit={bench.fit} workspace={workspace} />
          <Seen fit={bench.fit} workspace={workspace} />
        </div>
        <div className="max-md:order-3 md:col-span-2 xl:col-span-1">
          <Judgement bench={bench} fit={bench.fit} />
        </div>
      </div>
      {bench.conflict && <ConflictDialog conflict={bench.conflict} settle={bench.settle} />}
    </main>
  );
}

/** The proof, and below it the ruler of seconds, whose playhead says which moment the proof shows. */
function Staged({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const [time, setTime] = useState<Time>(ALL_IN);
  return (
    <>
      <Stage bench={bench} fit={fit} time={time} />
      <Motion bench={bench} fit={fit} time={time} setTime={setTime} />
    </>
  );
}

function TopLine({ bench, workspace }: { bench: Bench; workspace: string }) {
  const { piece } = bench.fit!;
  const { outbox } = bench;
  const { row } = bench.fit!;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1 className="text-[22px] leading-8">
        {piece.document.subject}
        {bench.fit!.take && <span className="text-soft">, take {bench.fit!.take}</span>}
        {row && (
          <span className="text-soft">
            , row {row.number}
            {row.title && `: ${row.title}`}
          </span>
        )}
      </h1>
      {row && (
        <Link
          to={`/w/${workspace}/runs/${piece.id}`}
          className="inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline"
        >
          All rows
        </Link>
      )}
      <SavedState outbox={outbox} />
      {outbox.trouble && <Problem message={outbox.trouble.message} onDismiss={outbox.forgetTrouble} />}
      <div className="ml-auto flex flex-wrap items-center justify-end gap-2 whitespace-nowrap">
        {bench.fit!.sheet.kind === "icon-set" && (
          <Link
            to={`/w/${workspace}/fits/${bench.fit!.id}/icons`}
            className="inline-flex min-h-8 items-center px-1 text-[13px] font-semibold text-measure hover:underline"
          >
            All its icons
          </Link>
        )}
        <Link
          to={`/w/${workspace}/fits/${bench.fit!.id}/proofs`}
          className="inline-flex min-h-8 items-center px-1 text-[13px] font-semibold text-measure hover:underline"
        >
          As it will be seen
        </Link>
        {!row && (
          <Link
            to={`/w/${workspace}/fits/${bench.fit!.id}/takes`}
            className="inline-flex min-h-8 items-center px-1 text-[13px] font-semibold text-measure hover:underline"
          >
            {bench.fit!.take ? "All takes" : "Another take"}
          </Link>
        )}
        <HelpSheet />
        <a
          href={`/api/workspaces/${workspace}/fits/${bench.fit!.id}/svg`}
          download
          className="inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
        >
          As SVG
        </a>
        <HistoryStep way="Undo" step={piece.undo} press={bench.undo} />
        <HistoryStep way="Redo" step={piece.redo} press={bench.redo} />
        <DeliverOne bench={bench} workspace={workspace} />
      </div>
    </div>
  );
}

function DeliverOne({ bench, workspace }: { bench: Bench; workspace: string }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const fit = bench.fit!;
  const ready = fit.deliverable;
  const hand = async () => {
    try {
      setBusy(true);
      const delivery = await deliverAndWait(workspace, {
        fits: [fit.id],
        changed: false,
        way: "zip",
        folder: "",
        flat: false,
      });
      const [first, ...others] = delivery.files;
      if (first?.state === "failed") throw new Error(first.message);
      save(others.length ? zipUrl(workspace, delivery.id) : fileUrl(workspace, first!.id));
      setTrouble(null);
    } catch (error) {
      setTrouble((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      {trouble && <Problem message={trouble} onDismiss={() => setTrouble(null)} />}
      <Button look="next" disabled={!ready || busy} onClick={() => void hand()}>
        {fit.measuring ? "Making the file…" : ready ? "Deliver this file" : "No file to deliver"}
      </Button>
    </>
  );
}
