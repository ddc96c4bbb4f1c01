import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import type { ArtworkOut, PreparationOut } from "../../api/client";
import { oneArtworkQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { HistoryStep } from "../../ui/HistoryStep";
import { SavedState } from "../../ui/SavedState";
import { Problem, Trouble } from "../../ui/Trouble";
import { AddStep, useOfferedStep } from "./AddStep";
import { PreparationStage } from "./stage/PreparationStage";
import { StepList } from "./StepList";
import { usePreparation, type Preparing } from "./usePreparation";
import { useTools } from "./useTools";

/** One artwork and the steps that prepare it; the picture before and after each of them. */
export function PreparationScreen() {
  const { workspace = "", artwork = "" } = useParams();
  const preparing = usePreparation(workspace, artwork);
  const tools = useTools();
  useOfferedStep(preparing, tools);
  const own = useQuery(oneArtworkQuery(workspace, artwork)).data;
  if (preparing.error && !preparing.data) return <Trouble error={preparing.error} />;
  if (!preparing.data || !own) return <main aria-busy className="px-7 py-10" />;
  return (
    <main className="px-7 pt-3 pb-8">
      <TopLine preparing={preparing} data={preparing.data} artwork={own} />
      <div className="mt-4 grid gap-x-9 gap-y-8 md:grid-cols-[306px_minmax(0,1fr)]">
        <div>
          <StepList preparing={preparing} data={preparing.data} tools={tools} />
          <AddStep preparing={preparing} data={preparing.data} />
        </div>
        <PreparationStage preparing={preparing} data={preparing.data} tools={tools} name={own.name} />
      </div>
    </main>
  );
}

interface TopLineProps {
  preparing: Preparing;
  data: PreparationOut;
  artwork: ArtworkOut;
}

function TopLine({ preparing, data, artwork }: TopLineProps) {
  const count = data.document.steps.filter((step) => step.on).length;
  const used = artwork.used_in.length;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1 className="text-[22px] leading-8">
        {artwork.name}
        <span className="text-soft">
          {count ? `, prepared in ${plural(count, "step", "steps")}` : ", as it came"}
        </span>
      </h1>
      {preparing.outbox.state === "not saved yet" ? (
        <SavedState outbox={preparing.outbox} />
      ) : (
        <span role="status" className="text-[13px] text-soft">
          {state(preparing, data, used)}
        </span>
      )}
      {preparing.trouble && (
        <Problem message={preparing.trouble.message} onDismiss={preparing.forgetTrouble} />
      )}
      {data.message && <Problem message={data.message} />}
      <div className="ml-auto flex items-center gap-2">
        <HistoryStep way="Undo" step={data.undo} press={preparing.undo} />
        <HistoryStep way="Redo" step={data.redo} press={preparing.redo} />
        <Link
          to={`/w/${preparing.workspace}/artwork?chosen=${preparing.artwork}`}
          className="inline-flex min-h-8 items-center rounded-[3px] border border-next bg-next px-3 py-1 text-[13px] font-semibold text-on-next hover:opacity-90"
        >
          Done
        </Link>
      </div>
    </div>
  );
}

function state(preparing: Preparing, data: PreparationOut, used: number): string {
  if (preparing.outbox.state === "saving") return "saving…";
  if (data.working) return `making it at full size, ${data.progress} %`;
  if (data.revision === 0) return "";
  return used
    ? `saved; ${plural(used, "place that shows it follows", "places that show it follow")}`
    : "saved";
}
