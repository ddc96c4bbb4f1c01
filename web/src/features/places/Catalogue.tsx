import { useQuery } from "@tanstack/react-query";

import type { Schemas } from "../../api/client";
import { catalogueQuery } from "../../api/queries";
import { Trouble } from "../../ui/Trouble";

type Entry = Schemas["CatalogueOut"];

interface Props {
  workspace: string;
  chosen: string | null;
  choose: (entry: Entry) => void;
}

const TALL_PX = 56;
const WIDE_PX = 120;

/** Kinds of place as a store of empty frames, group by group, each group drawn to one scale. */
export function Catalogue({ workspace, chosen, choose }: Props) {
  const found = useQuery(catalogueQuery(workspace));
  if (found.error) return <Trouble error={found.error} />;
  const all = found.data ?? [];
  const groups = [...new Set(all.map((entry) => entry.group))];
  return (
    <section aria-label="Catalogue" className="mt-10">
      <h2 className="border-t border-dashed border-strong pt-4 text-[20px]">Or begin from a kind of place</h2>
      {groups.map((group) => (
        <section key={group} className="mt-5">
          <h3 className="text-[15px]">{group}</h3>
          <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-4">
            {all
              .filter((entry) => entry.group === group)
              .map((entry) => (
                <Frame
                  key={entry.kind}
                  entry={entry}
                  pressed={entry.kind === chosen}
                  press={() => choose(entry)}
                />
              ))}
          </ul>
        </section>
      ))}
    </section>
  );
}

function Frame({ entry, pressed, press }: { entry: Entry; pressed: boolean; press: () => void }) {
  const { size, cut, covered, name, short_size } = entry.shown;
  const scale = Math.min(WIDE_PX / size.width, TALL_PX / size.height);
  return (
    <li className="w-[150px]">
      <button
        type="button"
        aria-pressed={pressed}
        onClick={press}
        title={entry.goes_wrong}
        className={`group block w-full text-left ${pressed ? "bg-[var(--measure-faint)]" : ""}`}
      >
        <span className="flex items-end border-b-2 border-strong" style={{ height: TALL_PX + 6 }}>
          <svg
            aria-hidden
            viewBox="0 0 1 1"
            preserveAspectRatio="none"
            className="block overflow-visible"
            style={{ width: Math.max(4, size.width * scale), height: Math.max(3, size.height * scale) }}
          >
            <path
              d={cut ?? "M0 0H1V1H0Z"}
              fill="var(--sheet)"
              stroke={pressed ? "var(--measure)" : "var(--ink-soft)"}
              strokeDasharray="3 2"
              vectorEffect="non-scaling-stroke"
            />
            {covered.map((zone) => (
              <rect
                key={zone.label}
                x={zone.x}
                y={zone.y}
                width={zone.width}
                height={zone.height}
                fill="var(--gauge)"
              />
            ))}
          </svg>
        </span>
        <span className="mt-1 block text-[13px] leading-[17px] font-semibold group-hover:underline">
          {name}
        </span>
        <span className="figure mt-0.5 block text-soft">{short_size}</span>
      </button>
    </li>
  );
}
