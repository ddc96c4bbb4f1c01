import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";

import { sourceOf } from "../../api/sceneQueries";
import type { Takes } from "../../api/takeQueries";
import { SceneView } from "../proofs/SceneView";
import { motionUnwanted } from "../../ui/motionUnwanted";

const EACH_MS = 900; // well under three changes a second

interface Props {
  workspace: string;
  takes: Takes;
  scene: Takes["scenes"]["scenes"][number];
}

/** The takes one after another at the same place: what differs is what moves. */
export function Blink({ workspace, takes, scene }: Props) {
  return (
    <Dialog.Root>
      <Dialog.Trigger className="min-h-7 font-semibold text-measure hover:underline">
        Blink between them
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-40 flex flex-col bg-paper focus:outline-none"
        >
          <Blinking workspace={workspace} takes={takes} scene={scene} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Blinking({ workspace, takes, scene }: Props) {
  const [at, setAt] = useState(0);
  const [running, setRunning] = useState(() => !motionUnwanted());
  const count = takes.takes.length;
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => setAt((now) => (now + 1) % count), EACH_MS);
    return () => clearInterval(timer);
  }, [running, count]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
      if (!by) return;
      setRunning(false);
      setAt((now) => (now + by + count) % count);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [count]);
  const take = takes.takes[at % count]!;
  return (
    <>
      <div className="flex flex-wrap items-center gap-4 px-4 py-2 text-[13px]">
        <Dialog.Title className="text-[14px]">
          {scene.name}: take {take.name}
        </Dialog.Title>
        <button
          type="button"
          className="min-h-8 px-2 font-semibold text-measure hover:underline"
          onClick={() => setRunning(!running)}
        >
          {running ? "Hold it" : "Go on by itself"}
        </button>
        <span className="text-soft max-sm:hidden">← and → go by hand</span>
        <Dialog.Close className="ml-auto min-h-8 px-2 font-semibold hover:underline">Close</Dialog.Close>
      </div>
      <div className="grid flex-1 place-items-center overflow-auto p-2">
        <div className="relative" style={{ width: scene.width, height: scene.height }}>
          {takes.takes.map((one) => (
            <div
              key={one.fit}
              aria-hidden={one !== take}
              className={`absolute inset-0 ${one === take ? "" : "invisible"}`}
            >
              <SceneView
                scene={scene}
                neighbours={takes.scenes.neighbours}

                source={sourceOf(workspace, one.fit, { ...takes.scenes, shown: one.shown })}
                alt={`Take ${one.name}`}
              />
            </div>
          ))}
        </div>
      </div>
    </>
  );
}
