import type { Bench } from "../useBench";

/** Waits for a click on the proof and gives the colour that is there. */
export function Picking({ bench, src }: { bench: Bench; src: string }) {
  if (!bench.picking) return null;
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label="Click the colour on the proof; Escape leaves it"
      autoFocus
      className="absolute inset-0 z-10 cursor-crosshair outline-2 outline-measure"
      onKeyDown={(event) => event.key === "Escape" && bench.pick(null)}
      onClick={(event) => {
        const frame = event.currentTarget.getBoundingClientRect();
        const x = (event.clientX - frame.left) / frame.width;
        const y = (event.clientY - frame.top) / frame.height;
        const take = bench.picking!;
        bench.pick(null);
        void colourAt(src, x, y).then((colour) => colour && take(colour));
      }}
    />
  );
}

/** The colour of a picture at fractions of its width and height, as a hex code; null where it is clear. */
async function colourAt(src: string, x: number, y: number): Promise<string | null> {
  const picture = new Image();
  picture.src = src;
  await picture.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [1, 1];
  const context = canvas.getContext("2d")!;
  const column = Math.min(picture.naturalWidth - 1, Math.floor(x * picture.naturalWidth));
  const row = Math.min(picture.naturalHeight - 1, Math.floor(y * picture.naturalHeight));
  context.drawImage(picture, column, row, 1, 1, 0, 0, 1, 1);
  const [red = 0, green = 0, blue = 0, alpha = 0] = context.getImageData(0, 0, 1, 1).data;
  if (alpha < 128) return null;
  return `#${[red, green, blue].map((value) => value.toString(16).padStart(2, "0")).join("")}`;
}
