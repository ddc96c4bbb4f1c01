import type { Schemas } from "../../api/client";

const LARGEST_SEEN_PX = 180;

/** The sizes at which it is seen, beside each other to one scale, at real size where there is room, on each ground. */
export function SeenSizes({ sheet }: { sheet: Schemas["SheetOut"] }) {
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
