import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import { FileFrame } from "../../../ui/FileFrame";

interface Point {
  x: number;
  y: number;
}

const hexOf = ([red = 0, green = 0, blue = 0]: Uint8ClampedArray) =>
  `#${[red, green, blue].map((one) => one.toString(16).padStart(2, "0")).join("")}`;

/** A picture of the page, of which a press or Enter takes the colour under the cross. It stays on this machine. */
export function PickFromPicture({ pick }: { pick: (colour: string) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [picture, setPicture] = useState<ImageBitmap | null>(null);
  const [trouble, setTrouble] = useState(false);
  const [at, setAt] = useState<Point>({ x: 0, y: 0 });
  const [colour, setColour] = useState("");
  useEffect(() => {
    if (!file) return;
    let gone = false;
    createImageBitmap(file)
      .then((read) => !gone && setPicture(read))
      .catch(() => !gone && setTrouble(true));
    return () => {
      gone = true;
    };
  }, [file]);
  useEffect(() => {
    if (!picture || !canvas.current) return;
    canvas.current.width = picture.width;
    canvas.current.height = picture.height;
    canvas.current.getContext("2d", { willReadFrequently: true })?.drawImage(picture, 0, 0);
  }, [picture]);
  const look = ({ x, y }: Point) => {
    const read = canvas.current?.getContext("2d")?.getImageData(x, y, 1, 1).data;
    setAt({ x, y });
    if (read) setColour(hexOf(read));
    return read ? hexOf(read) : "";
  };
  const under = (event: PointerEvent): Point => {
    const frame = canvas.current!.getBoundingClientRect();
    const scale = canvas.current!.width / frame.width;
    return {
      x: Math.floor((event.clientX - frame.left) * scale),
      y: Math.floor((event.clientY - frame.top) * scale),
    };
  };
  const onKey = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      event.key
    ] ?? [0, 0];
    if (event.key === "Enter") pick(look(at));
    if (!dx && !dy) return;
    event.preventDefault();
    const most = canvas.current!;
    look({
      x: Math.min(most.width - 1, Math.max(0, at.x + dx! * step)),
      y: Math.min(most.height - 1, Math.max(0, at.y + dy! * step)),
    });
  };
  return (
    <FileFrame
      title="A screenshot of the page"
      hint="drop it here"
      file={file}
      choose={(next) => {
        setTrouble(false);
        setPicture(null);
        setFile(next);
      }}
    >
      {trouble && (
        <p className="mt-2 text-[13px] text-refused">
          This browser cannot show this file. Take a PNG or JPEG.
        </p>
      )}
      {picture && (
        <>
          <div className="relative mt-2 inline-block max-w-full">
            <canvas
              ref={canvas}
              tabIndex={0}
              role="application"
              aria-label="The screenshot; arrow keys move the cross, Enter takes the colour"
              onPointerMove={(event) => look(under(event))}
              onClick={(event) => pick(look(under(event as unknown as PointerEvent)))}
              onKeyDown={onKey}
              className="block max-h-80 max-w-full cursor-crosshair"
            />
            <span
              aria-hidden
              className="pointer-events-none absolute size-3 -translate-x-1/2 -translate-y-1/2 border border-ink bg-transparent outline outline-sheet"
              style={{
                left: `${((at.x + 0.5) / picture.width) * 100}%`,
                top: `${((at.y + 0.5) / picture.height) * 100}%`,
              }}
            />
          </div>
          <p className="mt-1 flex items-center gap-2 text-[13px]">
            <span aria-hidden className="size-6 border border-hairline" style={{ background: colour }} />
            <span className="figure" role="status">
              {colour}
            </span>
            <span className="text-soft">Press, or Enter, takes it as a ground.</span>
          </p>
        </>
      )}
    </FileFrame>
  );
}
