import type { Schemas } from "../../api/client";
import { SeenSizes } from "./SeenSizes";
import { SheetDrawing } from "./SheetDrawing";

type Sheet = Schemas["SheetOut"];

/** A sheet that can be read: the drawing, what is asked, and how it is seen. */
export function SheetView({ sheet }: { sheet: Sheet }) {
  const asked = sheet.sentences.filter((one) => one.asked);
  const shown = sheet.sentences.filter((one) => !one.asked);
  return (
    <div className="flex flex-wrap gap-x-10 gap-y-6">
      <SheetDrawing sheet={sheet} room={300} tall={240} />
      <div className="grid min-w-0 flex-1 basis-[220px] grid-cols-[minmax(0,1fr)] content-start gap-5 text-[14px]">
        <Sentences title="Asked" lines={asked} />
        <Sentences title="Seen" lines={shown} />
        {sheet.seen.length > 0 && <SeenSizes sheet={sheet} />}
      </div>
    </div>
  );
}

function Sentences({ title, lines }: { title: string; lines: Schemas["SentenceOut"][] }) {
  return (
    <section>
      <h2 className="border-b border-strong pb-1 text-[14px]">{title}</h2>
      <ul>
        {lines.map((one) => (
          <li key={one.text} className="border-b border-hairline py-1">
            {one.text}
          </li>
        ))}
      </ul>
    </section>
  );
}
