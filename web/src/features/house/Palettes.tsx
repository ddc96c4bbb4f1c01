import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { artworkQuery, harmoniesQuery } from "../../api/queries";
import type { House } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

/** Colours out of an artwork, and those that go with one of the house's own; a click adds one. */
export function Palettes({ house }: { house: House }) {
  const artwork =
    useQuery(artworkQuery(house.workspace)).data?.filter((entry) => entry.facts && !entry.put_away) ?? [];
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const source = artwork.find((entry) => entry.id === from) ?? artwork[0];
  const own = to ?? house.style.colours[0]?.hex ?? null;
  const harmonies = useQuery({ ...harmoniesQuery(house.workspace, own ?? ""), enabled: own !== null });
  const select = "min-h-7 max-w-56 border-b border-ink bg-transparent [&>option]:bg-sheet";
  return (
    <Section title="Palettes to take colours from">
      {source && (
        <div className="border-b border-hairline py-2 text-[13px]">
          <label className="flex items-baseline gap-2">
            <span className="text-soft">In</span>
            <select value={source.id} onChange={(event) => setFrom(event.target.value)} className={select}>
              {artwork.map((entry) => (
                <option key={entry.id} value={entry.id}>
                  {entry.name}
                </option>
              ))}
            </select>
          </label>
          <Offered house={house} colours={source.facts!.colours.map((colour) => colour.hex)} />
        </div>
      )}
      {own && (
        <div className="py-2 text-[13px]">
          <label className="flex items-baseline gap-2">
            <span className="text-soft">That go with</span>
            <select value={own} onChange={(event) => setTo(event.target.value)} className={select}>
              {house.style.colours.map((colour) => (
                <option key={colour.hex} value={colour.hex}>
                  {colour.name || colour.hex}
                </option>
              ))}
            </select>
          </label>
          <dl>
            {harmonies.data?.map((harmony) => (
              <div key={harmony.name} className="grid grid-cols-[120px_1fr] items-center gap-2 pt-1">
                <dt className="text-soft">{harmony.name}</dt>
                <dd>
                  <Offered house={house} colours={harmony.colours} />
                </dd>
              </div>
            ))}
          </dl>
        </div>
      )}
    </Section>
  );
}

function Offered({ house, colours }: { house: House; colours: string[] }) {
  const own = house.style.colours.map((colour) => colour.hex);
  return (
    <span className="mt-1 flex flex-wrap gap-1.5">
      {[...new Set(colours)].map((colour) => (
        <button
          key={colour}
          type="button"
          disabled={own.includes(colour)}
          title={own.includes(colour) ? `${colour} is one of yours` : `Add ${colour}`}
          aria-label={`Add ${colour}`}
          onClick={() => house.add(colour)}
          className="figure flex items-center gap-1.5 border border-hairline pr-2 enabled:hover:border-measure disabled:opacity-60"
        >
          <span className="size-6" style={{ background: colour }} />
          {colour}
        </button>
      ))}
    </span>
  );
}
