import { Maximize2 } from "lucide-react";

import type { Scene, Scenes, Sight, Source } from "../../api/sceneQueries";
import { useLooked } from "../../ui/MovingImage";
import { SteadyImage } from "../../ui/SteadyImage";
import { Loupe } from "./Loupe";
import { SceneView } from "./SceneView";
import { filterOf } from "./Sights";

interface Props {
  scene: Scene;
  scenes: Scenes;
  source: Source;
  alt: string;
  sight: Sight;
  times: number;
  open?: () => void;
  /** Of what moves: its loop, which plays while it is looked at, or `together` with all others. */
  loop?: string | null;
  together?: boolean;
}

/** One scene on the line, at its real size, with its name. */
export function SceneFigure({
  scene,
  scenes,
  source,
  alt,
  sight,
  times,
  open,
  loop = null,
  together = false,
}: Props) {
  const [looked, handlers] = useLooked();
  return (
    <figure className="min-w-0 max-w-full" {...handlers}>
      <div className="w-fit max-w-full overflow-x-auto overflow-y-hidden border border-hairline">
        <Loupe
          times={times}
          picture={source.scene?.(scene.id, sight, scene.density) ?? ""}
          width={scene.width}
          height={scene.height}
          name={scene.name}
        >
          {sight === "far" && source.scene ? (
            <SteadyImage
              src={source.scene(scene.id, "far", 1)}
              alt={alt}
              className="block max-w-none"
              style={{ width: scene.width, height: scene.height }}
            />
          ) : (
            <div style={{ filter: filterOf(sight) }}>
              <SceneView
                scene={scene}
                neighbours={scenes.neighbours}
                source={source}
                alt={alt}
                playing={looked || together ? loop : null}
              />
            </div>
          )}
        </Loupe>
      </div>
      <figcaption className="flex items-center gap-2 pt-1 text-[13px]">
        <span>{scene.name}</span>
        {scene.density > 1 && <span className="figure text-soft">drawn for density {scene.density}</span>}
        {open && (
          <button
            type="button"
            onClick={open}
            aria-label={`${scene.name}, alone`}
            title="Alone on the screen"
            className="ml-auto inline-flex size-7 items-center justify-center text-soft hover:text-ink"
          >
            <Maximize2 size={14} />
          </button>
        )}
      </figcaption>
    </figure>
  );
}
