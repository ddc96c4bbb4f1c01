import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from "react";

import type { FitOut, PartOut, Schemas } from "../../../api/client";
import { typefaceUrl } from "../../../api/queries";
import type { Bench } from "../useBench";
import { documentPart, focusOn, partHere } from "./parts";

type Words = Schemas["WordsPart"];

/** Words typed on the proof itself, in their own typeface; set properly by the server when they are done. */
export function WordsEditor({
  bench,
  fit,
  part,
  scale,
}: {
  bench: Bench;
  fit: FitOut;
  part: PartOut;
  scale: number;
}) {
  const words = partHere(fit, documentPart(fit, part.part) as Words);
  const [text, setText] = useState(words.text);
  const face = useFace(bench.workspace, words);
  const cancelled = useRef(false);
  const done = () => {
    if (cancelled.current) return;
    bench.selection.goInside(null);
    if (text !== words.text)
      bench.change("change the words", [{ part: part.part, field: "text", value: text }]);
  };
  const { stands } = part;
  const room = useRef<HTMLTextAreaElement>(null);
  useFitting(room, part.words!.size_px * scale, text, face);
  return (
    <textarea
      ref={room}
      aria-label={`Words of the ${part.role}`}
      autoFocus
      value={text}
      onChange={(event) => setText(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          cancelled.current = true;
          bench.selection.goInside(null);
        }
        const left = event.key === "Escape" || (event.key === "Enter" && (event.ctrlKey || event.metaKey));
        if (left) focusOn(part.part);
        event.stopPropagation();
      }}
      className="absolute resize-none overflow-hidden bg-measure/10 outline-2 outline-measure"
      style={{
        left: stands.x * scale,
        top: stands.y * scale,
        width: stands.width * scale,
        height: stands.height * scale,
        rotate: `${part.rotation}deg`,
        fontFamily: `"${face}", sans-serif`,
        lineHeight: words.line_height ?? 1.1,
        textAlign: words.align === "centre" ? "center" : words.align,
        color: part.words!.colour,
      }}
    />
  );
}

const LEAST_PX = 4;
const SMALLER = 0.94;

/** Sets the words smaller while they are too many for their box, so that all that is typed is seen. */
function useFitting(
  room: RefObject<HTMLTextAreaElement | null>,
  size: number,
  text: string,
  face: string,
): void {
  useLayoutEffect(() => {
    const box = room.current!;
    let now = size;
    const set = () => (box.style.fontSize = `${now}px`);
    for (set(); box.scrollHeight > box.clientHeight + 1 && now > LEAST_PX; set()) now *= SMALLER;
  }, [room, size, text, face]);
}

/** The typeface's own file under a name of its own, loaded once. */
function useFace(workspace: string, words: Words): string {
  const { family = "", weight = 400, italic = false } = words;
  const name = `fitzle ${family} ${weight}${italic ? " italic" : ""}`;
  useEffect(() => {
    if ([...document.fonts].some((face) => face.family.includes(name))) return;
    const face = new FontFace(name, `url("${typefaceUrl(workspace, family, weight, italic)}")`);
    document.fonts.add(face);
    void face.load().catch(() => undefined);
  }, [workspace, family, weight, italic, name]);
  return name;
}
