import { Dialog } from "radix-ui";
import { useEffect } from "react";

import type { Scene, Scenes, Sight, Source } from "../../api/sceneQueries";
import { SceneView } from "./SceneView";
import { filterOf } from "./Sights";

interface Props {
  scene: Scene;
  scenes: Scenes;
  source: Source;
  alt: string;
  sight: Sight;
  step: (by: number) => void;
  close: () => void;
}

/** One scene with nothing around it; the arrow keys go on to the next. */
export function Alone({ scene, scenes, source, alt, sight, step, close }: Props) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "ArrowRight") step(1);
      if (event.key === "ArrowLeft") step(-1);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [step]);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-40 flex flex-col bg-paper focus:outline-none"
        >
          <div className="flex items-center gap-4 px-4 py-2 text-[13px]">
            <Dialog.Title className="text-[14px]">{scene.name}</Dialog.Title>
            <span className="text-soft max-sm:hidden">← and → show the others</span>
            <Dialog.Close className="ml-auto min-h-8 px-2 font-semibold hover:underline">Close</Dialog.Close>
          </div>
          <div
            className="grid flex-1 place-items-center overflow-auto p-2"
            style={{ filter: filterOf(sight) }}
          >
            <SceneView
              scene={scene}
              neighbours={scenes.neighbours}

              source={source}
              alt={alt}
            />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
