import type { FitOut, PartOut } from "../../../api/client";
import { documentPart, fillsAll } from "./parts";
import { FocusPan } from "./FocusPan";
import type { Gestures } from "./useGesture";
import type { Bench } from "../useBench";

interface Props {
  bench: Bench;
  fit: FitOut;
  scale: number;
  gestures: Gestures;
  /** Told which part the pointer rests on. */
  pointAt: (part: string | null) => void;
}

/** Every part as something that can be taken hold of, back to front. */
export function PartLayer(props: Props) {
  const { bench, fit } = props;
  return fit.parts.map((part) => {
    if (documentPart(fit, part.part)?.locked) return null;
    const panned = part.artwork && (fillsAll(fit, part) || bench.selection.inside === part.part);
    return panned ? (
      <FocusPan key={part.part} bench={bench} fit={fit} scale={props.scale} part={part} />
    ) : (
      <Grip key={part.part} {...props} part={part} />
    );
  });
}

function Grip({ bench, fit, scale, gestures, pointAt, part }: Props & { part: PartOut }) {
  const { selection } = bench;
  const { box } = part;
  const goInside = () => {
    selection.select([part.part]);
    selection.goInside(part.part);
  };
  return (
    <div
      role="button"
      tabIndex={0}
      data-part={part.part}
      aria-pressed={selection.has(part.part)}
      aria-label={`${part.name}, ${part.role}`}
      className="absolute cursor-move touch-none outline-offset-[-3px] hover:outline hover:outline-measure/60"
      style={{
        left: box.x * scale,
        top: box.y * scale,
        width: Math.max(box.width * scale, 8),
        height: Math.max(box.height * scale, 8),
        rotate: `${part.rotation}deg`,
      }}
      onPointerEnter={() => pointAt(part.part)}
      onPointerLeave={() => pointAt(null)}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        if (event.shiftKey) return selection.toggle(part.part);
        const chosen = selection.has(part.part) ? selection.ids : [part.part];
        if (!selection.has(part.part)) selection.select(chosen);
        const moving = fit.parts.filter((entry) => chosen.includes(entry.part));
        gestures.begin(event, { kind: "move" }, moving);
      }}
      onPointerMove={gestures.move}
      onPointerUp={gestures.end}
      onPointerCancel={gestures.end}
      onDoubleClick={goInside}
      onFocus={() => !selection.has(part.part) && selection.select([part.part])}
      onKeyDown={(event) => {
        if (event.key !== "Enter") return;
        event.preventDefault();
        goInside();
      }}
    />
  );
}
