import { useQuery } from "@tanstack/react-query";
import type { CSSProperties } from "react";

import { wallQuery } from "../../../api/queries";
import { useHouseColours } from "../fields/StepFields";
import type { Tools } from "../useTools";

export const groundStyle = (ground: string): CSSProperties =>
  ground === "checker" ? {} : { background: ground };

/** What is seen through clear parts: squares, black, white, a colour of the house, or the ground of a place. */
export function Grounds({ workspace, tools }: { workspace: string; tools: Tools }) {
  const house = useHouseColours(workspace);
  const wall = useQuery(wallQuery(workspace));
  const places = new Map<string, string>();
  for (const shelf of wall.data?.shelves ?? [])
    for (const place of shelf.placements)
      if (!places.has(place.ground)) places.set(place.ground, `${shelf.name}, ${place.name}`);
  const options: [string, string][] = [
    ["checker", "Squares"],
    ["#000000", "Black"],
    ["#ffffff", "White"],
    ...house.map((colour): [string, string] => [colour, `House colour ${colour}`]),
    ...[...places]
      .filter(([ground]) => !["#000000", "#ffffff", ...house].includes(ground))
      .map(([ground, name]): [string, string] => [ground, `As in ${name}`]),
  ];
  return (
    <div role="group" aria-label="Seen on" className="flex items-center gap-1.5">
      <span className="pr-1 text-soft">Seen on</span>
      {options.map(([ground, words]) => (
        <button
          key={ground}
          type="button"
          aria-label={words}
          aria-pressed={ground === tools.ground}
          title={words}
          onClick={() => tools.setGround(ground)}
          className={`size-6 border ${ground === "checker" ? "checker" : ""} ${ground === tools.ground ? "border-2 border-measure" : "border-hairline"}`}
          style={groundStyle(ground)}
        />
      ))}
    </div>
  );
}
