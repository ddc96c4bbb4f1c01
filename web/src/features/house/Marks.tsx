import { Link } from "react-router";

import { artworkUrl } from "../../api/queries";
import type { House } from "./HouseStyleScreen";
import { Section } from "./Section";

/** Each mark on a light and on a dark ground, with the contrast that its outline reaches there. */
export function Marks({ house }: { house: House }) {
  const { marks, light, dark } = house.style;
  return (
    <Section title="Marks on light and dark grounds">
      {marks.length === 0 && (
        <p className="py-2 text-[13px] text-soft">
          No marks yet. Bring in your logo, and see here where it shows.
        </p>
      )}
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-x-5 gap-y-4">
        {marks.map((mark) => (
          <li key={mark.id}>
            <div className="grid grid-cols-2">
              {[
                { ground: light, ratio: mark.on_light, shows: mark.shows_on_light, words: "light" },
                { ground: dark, ratio: mark.on_dark, shows: mark.shows_on_dark, words: "dark" },
              ].map(({ ground, ratio, shows, words }) => (
                <div key={ground}>
                  <span className="flex h-20 items-center justify-center p-2" style={{ background: ground }}>
                    <img
                      src={artworkUrl(house.workspace, mark, 200)}
                      alt={`${mark.name} on ${words}`}
                      className="max-h-full max-w-full object-contain"
                    />
                  </span>
                  <span className={`figure ${shows ? "text-fits" : "text-risky"}`}>
                    {ratio.toFixed(1)} {shows ? "shows" : "too faint"}
                  </span>
                </div>
              ))}
            </div>
            <p className="mt-1 flex items-baseline gap-3 text-[13px]">
              <span className="min-w-0 flex-1 truncate font-semibold">{mark.name}</span>
              {!mark.shows_on_dark && (
                <Link
                  to={`/w/${house.workspace}/artwork/${mark.id}/preparation`}
                  className="text-[12px] text-measure hover:underline"
                >
                  Prepare it
                </Link>
              )}
            </p>
          </li>
        ))}
      </ul>
    </Section>
  );
}
