import { useQuery } from "@tanstack/react-query";
import { Copy, Pipette } from "lucide-react";
import { useState } from "react";

import { contrastsQuery } from "../../../api/queries";
import { AnyColour, NoColour, Swatch } from "../../../ui/colours";
import { Line } from "../../../ui/fields";
import { HEX, Hex, normalHex } from "../../../ui/Hex";
import type { Bench } from "../useBench";

interface Props {
  bench: Bench;
  label: string;
  value: string | null;
  /** What no colour is called; without it there always is one. */
  none?: string;
  change: (colour: string | null) => void;
  /** The part whose contrast with what is behind it is shown for each colour. */
  against?: string;
  more?: readonly string[];
}

/** A colour with its name before it. */
export function ColourField(props: Props) {
  return (
    <Line term={props.label}>
      <ColourChoice {...props} />
    </Line>
  );
}

/** House colours first, then those of the artwork in use, then any: by hex code, from a palette, from the proof. */
export function ColourChoice({ bench, label, value, none, change, against, more = [] }: Props) {
  const fit = bench.fit!;
  const [typed, setTyped] = useState<string | null>(null);
  const house = fit.house;
  const others = [...new Set([...more, ...fit.artwork_colours])]
    .filter((colour) => !house.includes(colour))
    .slice(0, 4);
  const shown = typed && HEX.test(typed) ? normalHex(typed) : value;
  const asked = [...new Set([...house, ...others, ...(shown ? [shown] : [])])];
  const contrasts = useQuery({
    ...contrastsQuery(bench.workspace, fit.id, fit.key, against ?? "", asked),
    enabled: against !== undefined,
    placeholderData: (before) => before,
  }).data;
  return (
    <div>
      <div className="flex flex-wrap items-center gap-0.5">
        {[...house, ...others].map((colour, index) => (
          <span key={colour} className={`flex flex-col items-center ${index === house.length ? "ml-1" : ""}`}>
            <Swatch
              label={label}
              colour={colour}
              chosen={colour === value}
              title={contrasts?.[colour] ? `${colour}, ${contrasts[colour].toFixed(1)} : 1` : undefined}
              choose={() => change(colour)}
            />
            {against !== undefined && (
              <span className="figure text-[9px]! text-soft">
                {contrasts?.[colour]?.toFixed(1) ?? "\u00a0"}
              </span>
            )}
          </span>
        ))}
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-2">
        <Hex label={label} value={value} typed={typed} setTyped={setTyped} change={change} />
        {shown && contrasts?.[shown] !== undefined && (
          <span className="figure text-measure">{contrasts[shown].toFixed(1)} : 1</span>
        )}
        <AnyColour label={label} value={value} typed={typed} setTyped={setTyped} change={change} />
        <button
          type="button"
          aria-label={`${label} from the proof`}
          title="Take a colour from the proof"
          className="inline-flex size-6 items-center justify-center text-soft hover:text-ink"
          onClick={() => bench.pick(change)}
        >
          <Pipette aria-hidden size={14} />
        </button>
        {value && (
          <button
            type="button"
            aria-label={`Copy ${value}`}
            title={`Copy ${value}`}
            className="inline-flex size-6 items-center justify-center text-soft hover:text-ink"
            onClick={() => void navigator.clipboard.writeText(value)}
          >
            <Copy aria-hidden size={13} />
          </button>
        )}
        {none && <NoColour words={none} chosen={value === null} choose={() => change(null)} />}
      </div>
    </div>
  );
}
