import { useQuery } from "@tanstack/react-query";
import { ArrowRight } from "lucide-react";

import { oneArtworkQuery } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Line } from "../../../ui/fields";
import { Swatches } from "../../../ui/Swatches";
import { useHouseColours, type FieldsProps } from "./StepFields";

/** All in one colour, or each of its colours by another. */
export function RecolourFields({ preparing, step }: FieldsProps<"recolour">) {
  const house = useHouseColours(preparing.workspace);
  const artwork = useQuery(oneArtworkQuery(preparing.workspace, preparing.artwork)).data;
  const before = preparing.data?.steps.find((entry) => entry.id === step.id)?.colours;
  const own = before ?? artwork?.facts?.colours.map((colour) => colour.hex) ?? [];
  const known = [...new Set([...own, ...step.colours.map(([from]) => from)])].slice(0, 12);
  const to = (from: string) => step.colours.find(([one]) => one === from)?.[1] ?? null;
  const trade = (from: string, colour: string | null) => {
    const others = step.colours.filter(([one]) => one !== from);
    const colours = colour && colour !== from ? [...others, [from, colour] as [string, string]] : others;
    preparing.change(`recolour ${from}`, { ...step, one: null, colours });
  };
  return (
    <>
      <Line term="All in">
        <Swatches
          label="All in"
          colours={house}
          value={step.one ?? null}
          none="its own"
          change={(one) => preparing.change("one colour", { ...step, one })}
        />
      </Line>
      {!step.one && (
        <ul className="mt-1">
          {known.map((from) => (
            <li key={from} className="flex items-start gap-2 border-t border-hairline py-1.5">
              <span
                title={from}
                className="mt-0.5 size-5 shrink-0 border border-hairline"
                style={{ background: from }}
              />
              <ArrowRight aria-hidden size={13} className="mt-1.5 shrink-0 text-soft" />
              <Swatches
                label={`${from} becomes`}
                colours={house}
                value={to(from)}
                none="as it is"
                change={(colour) => trade(from, colour)}
              />
            </li>
          ))}
        </ul>
      )}
      <Button
        look="bare"
        className="mt-1 min-h-6 text-[12px]"
        onClick={() => preparing.propose("dark-version", step.id)}
      >
        Propose colours for dark grounds
      </Button>
    </>
  );
}
