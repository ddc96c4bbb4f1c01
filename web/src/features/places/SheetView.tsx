import type { Schemas } from "../../api/client";
import { SheetDrawing } from "./SheetDrawing";

type Sheet = Schemas["SheetOut"];

const LARGEST_SEEN_PX = 180;

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

/** The sizes at which it is seen, beside each other to one scale, at real size where there is room, on each ground. */
function SeenSizes({ sheet }: { sheet: Sheet }) {
  const ratio = sheet.size.height / sheet.size.width;
  const scale = Math.min(1, LARGEST_SEEN_PX / Math.max(...sheet.seen.map((one) => one.width)));
  return (
    <div aria-hidden className="flex flex-wrap items-end gap-3">
      {sheet.grounds.slice(0, 4).flatMap((ground) =>
        sheet.seen.slice(0, 4).map((one) => {
          const width = one.width * scale;
          return (
            <span
              key={ground + one.name}
              className="border border-hairline p-1.5"
              style={{ background: ground }}
            >
              <svg
                viewBox="0 0 1 1"
                preserveAspectRatio="none"
                className="block overflow-visible"
                style={{ width, height: Math.max(1, width * ratio) }}
              >
                <path
                  d={sheet.cut ?? "M0 0H1V1H0Z"}
                  fill="none"
                  stroke="#808080"
                  strokeDasharray="3 2"
                  vectorEffect="non-scaling-stroke"
                />
              </svg>
            </span>
          );
        }),
      )}
    </div>
  );
}
