import type { CSSProperties, ReactNode } from "react";

import type { Item, Scene, Scenes, Source } from "../../api/sceneQueries";
import { SteadyImage } from "../../ui/SteadyImage";

interface Props {
  scene: Scene;
  neighbours: Scenes["neighbours"];
  source: Source;
  /** What the picture is called by those who cannot see it. */
  alt: string;
  /** The loop, where it is to be seen playing instead. */
  playing?: string | null;
}

/** A scene at its real size, drawn from its description: one px of it is one px of the page. */
export function SceneView({ scene, neighbours, source, alt, playing = null }: Props) {
  const first = scene.items.findIndex((item) => item.kind === "picture");
  return (
    <div
      className="relative overflow-hidden"
      style={{ width: scene.width, height: scene.height, background: scene.ground }}
    >
      {scene.items.map((item, index) => {
        if (item.kind === "shot")
          return (
            <img key={index} src={source.shot} alt="" className="absolute inset-0 h-full w-full max-w-none" />
          );
        if (item.kind !== "picture") return <Plain key={index} item={item} neighbours={neighbours} />;
        return (
          <Picture
            key={index}
            item={item}
            shown={playing ?? source.shown(scene.id)}
            alt={index === first ? alt : ""}
          />
        );
      })}
    </div>
  );
}

type Of<K extends Item["kind"]> = Extract<Item, { kind: K }>;

function Plain({ item, neighbours }: { item: Item; neighbours: Scenes["neighbours"] }) {
  if (item.kind === "box") return <Box item={item} />;
  if (item.kind === "words") return <Words item={item} />;
  if (item.kind === "neighbour")
    return (
      <Clipped frame={item.clip}>
        <img
          src={`data:image/svg+xml,${encodeURIComponent(neighbours[item.seed] ?? "")}`}
          alt=""
          className="h-full w-full object-cover"
        />
      </Clipped>
    );
  return null;
}

function Box({ item }: { item: Of<"box"> }) {
  return (
    <span
      className="absolute"
      style={{
        left: item.x,
        top: item.y,
        width: item.width,
        height: item.height,
        background: item.fill,
        borderRadius: item.radius,
        opacity: item.opacity,
      }}
    />
  );
}

const SHIFTS = { left: "0", centre: "-50%", right: "-100%" };

function Words({ item }: { item: Of<"words"> }) {
  return (
    <span
      aria-hidden
      className="absolute leading-none whitespace-nowrap"
      style={{
        left: item.x,
        top: item.y - item.size * 0.86,
        fontSize: item.size,
        fontWeight: item.weight,
        color: item.fill,
        transform: `translateX(${SHIFTS[item.align]})`,
      }}
    >
      {item.text}
    </span>
  );
}

function Picture({ item, shown, alt }: { item: Of<"picture">; shown: string; alt: string }) {
  return (
    <span
      className="absolute inset-0 block"
      style={{ opacity: item.opacity, transform: matrixOf(item.perspective ?? []), transformOrigin: "0 0" }}
    >
      <Clipped frame={item.clip}>
        <span
          className="absolute"
          style={{
            left: item.x - item.clip.x,
            top: item.y - item.clip.y,
            width: item.width,
            height: item.height,
          }}
        >
          <SteadyImage src={shown} alt={alt} className="block h-full w-full max-w-none" />
          {item.veil && (
            <span
              className="absolute inset-0"
              style={{ background: item.veil, opacity: item.veil_opacity }}
            />
          )}
        </span>
      </Clipped>
    </span>
  );
}

function Clipped({ frame, children }: { frame: Of<"picture">["clip"]; children: ReactNode }) {
  const style: CSSProperties = { left: frame.x, top: frame.y, width: frame.width, height: frame.height };
  if (frame.outline) style.clipPath = `path("${frame.outline}")`;
  return (
    <span className="absolute block overflow-hidden" style={style}>
      {children}
    </span>
  );
}

/** A homography (3 x 3, row by row) as CSS wants it: 4 x 4, column by column. */
function matrixOf(rows: number[]): string | undefined {
  if (rows.length !== 9) return undefined;
  const [a, b, c, d, e, f, g, h, i] = rows;
  return `matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i].join(",")})`;
}
