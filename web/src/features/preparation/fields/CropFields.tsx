import { useQuery } from "@tanstack/react-query";

import { wallQuery } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Line } from "../../../ui/fields";
import { heldTo } from "../../../measure/cropping";
import { sizeBefore } from "../stage/sizes";
import type { FieldsProps } from "./StepFields";

const FREE = "any shape";
const OWN = "its own shape";

/** The shape that the crop is held to; the window itself is drawn on the picture. */
export function CropFields({ preparing, data, step, tools }: FieldsProps<"crop">) {
  const wall = useQuery(wallQuery(preparing.workspace));
  const before = sizeBefore(data, step.id);
  const places = (wall.data?.shelves ?? []).flatMap((shelf) =>
    shelf.placements.map((place) => ({ ...place, name: `${shelf.name}, ${place.name}` })),
  );
  const choose = (name: string) => {
    const place = places.find((one) => one.name === name);
    const ratio = place
      ? place.width / place.height
      : name === OWN
        ? before.width / before.height
        : name === "square"
          ? 1
          : null;
    tools.setRatio(ratio);
    preparing.change("shape of the crop", {
      ...step,
      ratio: name === FREE ? "" : name,
      window: ratio ? heldTo(step.window, ratio, before) : step.window,
    });
  };
  return (
    <>
      <Line term="Held to">
        <select
          aria-label="Held to"
          value={step.ratio || FREE}
          onChange={(event) => choose(event.target.value)}
          className="min-h-6 max-w-full border-b border-ink bg-transparent [&>option]:bg-sheet"
        >
          {[FREE, OWN, "square"].map((name) => (
            <option key={name}>{name}</option>
          ))}
          <optgroup label="A place">
            {places.map((place) => (
              <option key={place.id} value={place.name}>
                {place.name} ({place.size})
              </option>
            ))}
          </optgroup>
        </select>
      </Line>
      <Button
        look="bare"
        className="mt-1 min-h-6 text-[12px]"
        onClick={() => preparing.propose("subject", step.id, tools.ratio)}
      >
        Set it around the subject
      </Button>
    </>
  );
}
