import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";

import { seenQuery, seenSource } from "../../api/sceneQueries";
import { SceneView } from "./SceneView";

/** The scenes on another device: one at a time, at real size, without anything of the workspace around it. */
export function SeenScreen() {
  const { token = "" } = useParams();
  const seen = useQuery(seenQuery(token));
  const [at, setAt] = useState(0);
  if (seen.error)
    return <main className="mx-auto max-w-md px-6 py-16 text-[15px]">{seen.error.message}</main>;
  if (!seen.data) return <main aria-busy className="px-6 py-10" />;
  const { scenes } = seen.data;
  const scene = scenes[at % scenes.length]!;
  const go = (by: number) => setAt((at + by + scenes.length) % scenes.length);
  return (
    <main className="flex min-h-dvh flex-col">
      <h1 className="sr-only">{scene.name}</h1>
      <div className="grid flex-1 place-items-center overflow-auto">
        <SceneView
          scene={scene}
          neighbours={seen.data.neighbours}

          source={seenSource(token, seen.data)}
          alt="The picture as it will be seen"
        />
      </div>
      <nav className="flex items-center justify-between gap-2 border-t border-hairline px-2 py-1 text-[14px]">
        <button type="button" className="min-h-11 px-4 font-semibold" onClick={() => go(-1)}>
          Before
        </button>
        <span aria-live="polite" className="min-w-0 truncate text-center text-[13px] text-soft">
          {scene.name} ({(at % scenes.length) + 1} of {scenes.length})
        </span>
        <button type="button" className="min-h-11 px-4 font-semibold" onClick={() => go(1)}>
          Next
        </button>
      </nav>
    </main>
  );
}
