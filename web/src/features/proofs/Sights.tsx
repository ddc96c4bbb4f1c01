import type { Scenes, Sight } from "../../api/sceneQueries";

/** The kinds of vision as filters of the page; the matrices come from the server and work on linear light. */
export function SightFilters({ vision }: { vision: Scenes["vision"] }) {
  return (
    <svg aria-hidden width="0" height="0" className="absolute">
      {Object.entries(vision).map(([name, m]) => (
        <filter key={name} id={`sight-${name}`} colorInterpolationFilters="linearRGB">
          <feColorMatrix
            type="matrix"
            values={[
              ...m.slice(0, 3),
              0,
              0,
              ...m.slice(3, 6),
              0,
              0,
              ...m.slice(6, 9),
              0,
              0,
              0,
              0,
              0,
              1,
              0,
            ].join(" ")}
          />
        </filter>
      ))}
    </svg>
  );
}

export const filterOf = (sight: Sight) =>
  sight === "usual" || sight === "far" ? undefined : `url(#sight-${sight})`;

export const SIGHTS: [Sight, string][] = [
  ["usual", "Usual"],
  ["protan", "Red-blind"],
  ["deutan", "Green-blind"],
  ["tritan", "Blue-blind"],
  ["far", "Across the room"],
];
