import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useCallback, useState } from "react";
import { Link, useParams } from "react-router";

import {
  proofSheetUrl,
  scenesQuery,
  sourceOf,
  type Scene,
  type Scenes,
  type Sight,
} from "../../api/sceneQueries";
import { motionQuery, playingUrl } from "../../api/motionQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/fields";
import { HistoryStep } from "../../ui/HistoryStep";
import { Problem, Trouble } from "../../ui/Trouble";
import { Findings } from "../bench/Judgement";
import { useBench, type Bench } from "../bench/useBench";
import { Alone } from "./Alone";
import { PhoneLink } from "./PhoneLink";
import { SceneFigure } from "./SceneFigure";
import { SIGHTS, SightFilters } from "./Sights";

const LOOP_PX = 960; // the widest that a loop is drawn here
const TIMES: [string, string][] = [
  ["0", "Off"],
  ["2", "2 ×"],
  ["4", "4 ×"],
  ["8", "8 ×"],
];

/** A fit in all scenes where it will be seen, with what was found, mended here and seen mended at once. */
export function ProofsScreen() {
  const { workspace = "", fit = "" } = useParams();
  const bench = useBench(workspace, fit);
  const state = bench.fit ? `${bench.fit.key}/${bench.fit.measuring}` : "";
  const scenes = useQuery({ ...scenesQuery(workspace, fit, state), enabled: state !== "" });
  const error = bench.error ?? scenes.error;
  if (error && !(bench.fit && scenes.data)) return <Trouble error={error} />;
  if (!bench.fit || !scenes.data) return <main aria-busy className="px-7 py-10" />;
  return <Proofs bench={bench} scenes={scenes.data} />;
}

function Proofs({ bench, scenes }: { bench: Bench; scenes: Scenes }) {
  const [sight, setSight] = useState<Sight>("usual");
  const [times, setTimes] = useState("0");
  const [alone, setAlone] = useState<string | null>(null);
  const fit = bench.fit!;
  const all = scenes.scenes;
  const source = sourceOf(bench.workspace, fit.id, scenes);
  const alt = `${fit.piece.document.subject} in ${fit.sheet.name}`;
  const shown = all.find((scene) => scene.id === alone);
  const [together, setTogether] = useState(false);
  const { data: motion } = useQuery({
    ...motionQuery(bench.workspace, fit.id, fit.piece.revision),
    enabled: fit.sheet.motion.allowed,
  });
  const loop = motion?.moves
    ? playingUrl(bench.workspace, fit.id, `${fit.piece.revision}`, Math.min(fit.width, LOOP_PX))
    : null;
  const step = useCallback(
    (by: number) =>
      setAlone((id) => {
        const at = all.findIndex((scene) => scene.id === id);
        return all[(at + by + all.length) % all.length]?.id ?? null;
      }),
    [all],
  );
  return (
    <main className="px-7 pt-3 pb-10">
      <SightFilters vision={scenes.vision} />
      <TopLine bench={bench} scenes={all} made={scenes.made} />
      <div className="mt-4 grid gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_292px]">
        <div className="min-w-0">
          <div className="flex flex-wrap gap-x-8 border-b-2 border-strong pb-2">
            <Choice label="Seen by" options={SIGHTS} value={sight} choose={setSight} />
            <Choice label="Magnifier" options={TIMES} value={times} choose={setTimes} />
            {loop && (
              <Button look="bare" aria-pressed={together} onClick={() => setTogether(!together)}>
                {together ? "Stop all" : "Play all together"}
              </Button>
            )}
          </div>
          <div className="mt-5 flex flex-wrap items-end gap-x-7 gap-y-7">
            {all.map((scene) => (
              <SceneFigure
                key={scene.id}
                scene={scene}
                scenes={scenes}
                source={source}
                alt={alt}
                sight={sight}
                times={Number(times)}
                open={() => setAlone(scene.id)}
                loop={loop}
                together={together}
              />
            ))}
          </div>
        </div>
        <aside aria-label="What was found">
          <Findings bench={bench} fit={fit} />
        </aside>
      </div>
      {shown && (
        <Alone
          scene={shown}
          scenes={scenes}
          source={source}
          alt={alt}
          sight={sight}
          step={step}
          close={() => setAlone(null)}
        />
      )}
    </main>
  );
}

function TopLine({ bench, scenes, made }: { bench: Bench; scenes: Scene[]; made: boolean }) {
  const fit = bench.fit!;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <div>
        <h1 className="text-[22px] leading-8">{fit.piece.document.subject}</h1>
        <p className="text-[13px] text-soft">
          {fit.sheet.name} in {plural(scenes.length, "scene", "scenes")} at real size,{" "}
          {made ? "the very file that is delivered" : "drawn while its file is made"}
        </p>
      </div>
      {bench.outbox.trouble && (
        <Problem message={bench.outbox.trouble.message} onDismiss={bench.outbox.forgetTrouble} />
      )}
      <div className="ml-auto flex flex-wrap items-center justify-end gap-3 whitespace-nowrap">
        <Link
          to={`/w/${bench.workspace}/fits/${fit.id}`}
          className="inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
        >
          At the bench
        </Link>
        <Link
          to={`/w/${bench.workspace}/fits/${fit.id}/takes`}
          className="inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
        >
          Takes
        </Link>
        <PhoneLink workspace={bench.workspace} fit={fit.id} />
        <SheetMenu workspace={bench.workspace} fit={fit.id} />
        <HistoryStep way="Undo" step={fit.piece.undo} press={bench.undo} />
        <HistoryStep way="Redo" step={fit.piece.redo} press={bench.redo} />
      </div>
    </div>
  );
}

/** The proof sheet for a client. */
function SheetMenu({ workspace, fit }: { workspace: string; fit: string }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
        Proof sheet
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 min-w-44 border border-ink bg-sheet py-1 text-[13px]"
        >
          {(["pdf", "png"] as const).map((kind) => (
            <DropdownMenu.Item key={kind} asChild>
              <a
                href={proofSheetUrl(workspace, fit, kind, [])}
                download
                className="block px-3 py-1.5 data-[highlighted]:bg-paper"
              >
                As {kind.toUpperCase()}, all scenes
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
