import { Link } from "react-router";

import { artworkUrl } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { useDarkVersion } from "../../ui/useDarkVersion";
import type { House, HouseStyle } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

type Mark = HouseStyle["marks"][number];

/** Each mark on a light and on a dark ground, in that of its versions which shows best there, with its contrast. */
export function Marks({ house }: { house: House }) {
  const { marks } = house.style;
  return (
    <Section title="Marks on light and dark grounds">
      {marks.length === 0 && (
        <p className="py-2 text-[13px] text-soft">
          No marks yet. Bring in your logo, and see here where it shows.
        </p>
      )}
      <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-x-5 gap-y-4">
        {marks.map((mark) => (
          <MarkOnGrounds key={mark.id} house={house} mark={mark} />
        ))}
      </ul>
    </Section>
  );
}

function MarkOnGrounds({ house, mark }: { house: House; mark: Mark }) {
  const make = useDarkVersion(house.workspace, mark.id);
  const { light, dark } = mark;
  const shown = [
    {
      ground: house.style.light,
      version: light,
      ratio: light.showing.on_light,
      shows: light.showing.shows_on_light,
    },
    {
      ground: house.style.dark,
      version: dark,
      ratio: dark.showing.on_dark,
      shows: dark.showing.shows_on_dark,
    },
  ];
  return (
    <li>
      <div className="grid grid-cols-2">
        {shown.map(({ ground, version, ratio, shows }, index) => (
          <div key={ground}>
            <span className="flex h-20 items-center justify-center p-2" style={{ background: ground }}>
              <img
                src={artworkUrl(house.workspace, version, 200)}
                alt={`${version.name} on ${index ? "dark" : "light"}`}
                className="max-h-full max-w-full object-contain"
              />
            </span>
            <span className={`figure ${shows ? "text-fits" : "text-risky"}`}>
              {ratio.toFixed(1)} {shows ? "shows" : "too faint"}
            </span>
          </div>
        ))}
      </div>
      <p className="mt-1 text-[13px]">
        <Link
          to={`/w/${house.workspace}/artwork?chosen=${mark.id}`}
          className="block min-h-6 truncate font-semibold leading-6 hover:underline"
        >
          {mark.name}
        </Link>
        {mark.versions > 1 && <span className="text-soft">{mark.versions} versions, chosen by contrast</span>}
        {!dark.showing.shows_on_dark && (
          <Button look="bare" disabled={make.isPending} onClick={() => make.mutate()}>
            {make.isPending ? "Making it…" : "Make one for dark grounds"}
          </Button>
        )}
      </p>
      {make.error && <Problem message={make.error.message} />}
    </li>
  );
}
