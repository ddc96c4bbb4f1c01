import { GripVertical } from "lucide-react";
import { useState } from "react";

import { useLimits } from "../../../ui/useLimits";
import { Another, Remove } from "./parts";
import type { Draft, Sheet } from "./useDraft";

type Format = Sheet["formats"][number];

/** The formats, the one that is wanted most first; ordered by dragging, or by the arrow keys on one. */
export function FormatFields({ draft }: { draft: Draft }) {
  const labels = useLimits().formats;
  const [dragged, setDragged] = useState<Format | null>(null);
  const formats = draft.sheet.formats;
  const set = (next: Format[]) => draft.set({ formats: next });
  const put = (one: Format, at: number) => {
    const rest = formats.filter((other) => other !== one);
    rest.splice(Math.max(0, at), 0, one);
    if (rest.join() !== formats.join()) set(rest);
  };
  const others = (Object.keys(labels) as Format[]).filter((one) => !formats.includes(one));
  return (
    <>
      <ol className="flex flex-wrap gap-x-2 gap-y-1" aria-label="Formats, the one that is wanted most first">
        {formats.map((one, at) => (
          <li
            key={one}
            draggable
            onDragStart={(event) => {
              event.dataTransfer.setData("text/plain", one);
              setDragged(one);
            }}
            onDragEnd={() => setDragged(null)}
            onDragOver={(event) => dragged && event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              event.stopPropagation();
              if (dragged) put(dragged, at);
              setDragged(null);
            }}
            className={`flex items-center border bg-sheet ${dragged === one ? "border-measure opacity-60" : "border-hairline"}`}
          >
            <button
              type="button"
              title="Drag it, or move it with the arrow keys"
              aria-label={`${labels[one]}, ${at + 1} of ${formats.length}; arrow keys move it`}
              onKeyDown={(event) => {
                const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[event.key];
                if (by) {
                  event.preventDefault();
                  put(one, at + by);
                }
              }}
              className="flex min-h-7 cursor-grab items-center gap-1 pl-1 text-[13px] font-semibold"
            >
              <GripVertical aria-hidden size={13} className="text-soft" />
              {labels[one]}
            </button>
            <Remove
              words={`Without ${labels[one]}`}
              press={() => set(formats.filter((other) => other !== one))}
            />
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-x-4">
        {others.map((one) => (
          <Another key={one} words={labels[one] ?? one} press={() => set([...formats, one])} />
        ))}
      </div>
    </>
  );
}
