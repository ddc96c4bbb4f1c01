import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { fitQuery } from "../../api/queries";
import { sourceOf } from "../../api/sceneQueries";
import { addTake, chooseTake, dropTake, takesQuery, type Take, type Takes } from "../../api/takeQueries";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { State } from "../../ui/State";
import { Problem, Trouble } from "../../ui/Trouble";
import { SceneView } from "../proofs/SceneView";
import { AskPeople } from "./AskPeople";
import { Blink } from "./Blink";
import { Proposals } from "./Proposals";

/** The takes of a piece in one place, side by side in one scene, with what differs; one of them is chosen. */
export function TakesScreen() {
  const { workspace = "", fit = "" } = useParams();
  const takes = useQuery(takesQuery(workspace, fit));
  const own = useQuery(fitQuery(workspace, fit));
  const error = takes.error ?? own.error;
  if (error && !(takes.data && own.data)) return <Trouble error={error} />;
  if (!takes.data || !own.data) return <main aria-busy className="px-7 py-10" />;
  return (
    <SideBySide
      workspace={workspace}
      fit={fit}
      takes={takes.data}
      subject={own.data.piece.document.subject}
      place={own.data.sheet.name}
    />
  );
}

interface Props {
  workspace: string;
  fit: string;
  takes: Takes;
  subject: string;
  place: string;
}

function SideBySide({ workspace, fit, takes, subject, place }: Props) {
  const [sceneId, setSceneId] = useState(takes.scenes.scenes[0]!.id);
  const { run, trouble, busy, forget } = useTakes(workspace, fit);
  const scene = takes.scenes.scenes.find((one) => one.id === sceneId) ?? takes.scenes.scenes[0]!;
  return (
    <main className="px-7 pt-3 pb-10">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <div>
          <h1 className="text-[22px] leading-8">{subject}</h1>
          <p className="text-[13px] text-soft">
            {plural(takes.takes.length, "take", "takes")} for {place}
          </p>
        </div>
        {trouble && <Problem message={trouble} onDismiss={forget} />}
        <nav className="ml-auto flex flex-wrap items-center gap-3 text-[13px]">
          <Link className="min-h-8 px-1 py-1.5 text-soft hover:underline" to={`/w/${workspace}/fits/${fit}`}>
            At the bench
          </Link>
          <Link
            className="min-h-8 px-1 py-1.5 text-soft hover:underline"
            to={`/w/${workspace}/fits/${fit}/proofs`}
          >
            As it will be seen
          </Link>
        </nav>
      </div>
      <div className="mt-4 flex flex-wrap items-center gap-x-8 gap-y-2 border-b-2 border-strong pb-2 text-[13px]">
        <label className="flex items-baseline gap-2">
          <span className="text-soft">In the scene</span>
          <select
            value={scene.id}
            onChange={(event) => setSceneId(event.target.value)}
            className="min-h-7 border-b border-hairline bg-transparent font-semibold"
          >
            {takes.scenes.scenes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
        {takes.takes.length > 1 && <Blink workspace={workspace} takes={takes} scene={scene} />}
      </div>
      <ol className="mt-5 flex flex-wrap items-start gap-x-6 gap-y-8">
        {takes.takes.map((take) => (
          <TakeFigure
            key={take.fit}
            workspace={workspace}
            take={take}
            takes={takes}
            scene={scene}
            busy={busy}
            choose={(everywhere) => run(() => chooseTake(workspace, take.fit, everywhere))}
            drop={() => run(() => dropTake(workspace, take.fit), take.fit)}
          />
        ))}
      </ol>
      <AskPeople workspace={workspace} fit={fit} scene={scene} takes={takes.takes.length} />
      <Proposals
        workspace={workspace}
        fit={fit}
        full={takes.full}
        busy={busy}
        add={(proposal) => run(() => addTake(workspace, fit, proposal))}
      />
    </main>
  );
}

/** What is done to takes, one at a time; the screen shows the newest state afterwards. */
function useTakes(workspace: string, fit: string) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const act = useMutation({
    mutationFn: ({ job }: { job: () => Promise<unknown>; gone?: string }) => job(),
    onSuccess: async (_, { gone }) => {
      if (gone === fit) return navigate(`/w/${workspace}`);
      await queries.invalidateQueries({ queryKey: [workspace] });
    },
  });
  return {
    run: (job: () => Promise<unknown>, gone?: string) => act.mutate({ job, gone }),
    trouble: act.error?.message ?? null,
    busy: act.isPending,
    forget: () => act.reset(),
  };
}

interface FigureProps {
  workspace: string;
  take: Take;
  takes: Takes;
  scene: Takes["scenes"]["scenes"][number];
  busy: boolean;
  choose: (everywhere: boolean) => void;
  drop: () => void;
}

function TakeFigure({ workspace, take, takes, scene, busy, choose, drop }: FigureProps) {
  return (
    <li className="max-w-full">
      <figure className="max-w-full">
        <div
          className={`w-fit max-w-full overflow-x-auto border ${take.chosen ? "border-ink" : "border-hairline"}`}
        >
          <SceneView
            scene={scene}
            neighbours={takes.scenes.neighbours}

            source={sourceOf(workspace, take.fit, { ...takes.scenes, shown: take.shown })}
            alt={`Take ${take.name}`}
          />
        </div>
        <figcaption className="max-w-[360px] pt-1.5 text-[13px]">
          <span className="flex flex-wrap items-baseline gap-x-3">
            <span className="font-heading text-[16px] font-semibold">Take {take.name}</span>
            <State state={take.state} why={take.why} />
            {take.chosen && <span className="text-soft">stands there</span>}
            {take.contrast != null && (
              <span className="figure text-measure">weakest contrast {take.contrast.toFixed(1)} : 1</span>
            )}
          </span>
          {take.differs.length > 0 && (
            <ul className="pt-1">
              {take.differs.map((words) => (
                <li key={words} className="before:mr-1.5 before:text-soft before:content-['–']">
                  {words}
                </li>
              ))}
            </ul>
          )}
          {take.differs.length === 0 && take.name !== "A" && (
            <p className="pt-1 text-soft">the same as A so far</p>
          )}
          <span className="flex flex-wrap items-center gap-x-3 gap-y-1 pt-2">
            {!take.chosen && (
              <Button disabled={busy} onClick={() => choose(false)}>
                Choose {take.name} here
              </Button>
            )}
            <Button look="quiet" disabled={busy} onClick={() => choose(true)}>
              {take.chosen ? `${take.name} in all its places` : "In all its places"}
            </Button>
            <Link
              className="min-h-7 py-1 font-semibold text-measure hover:underline"
              to={`/w/${workspace}/fits/${take.fit}`}
            >
              Change it
            </Link>
            {!take.chosen && take.name !== "A" && (
              <Button look="bare" disabled={busy} onClick={drop}>
                Take it away
              </Button>
            )}
          </span>
        </figcaption>
      </figure>
    </li>
  );
}
