import { sampleUrl } from "../../api/queries";
import type { House } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

const SAMPLE = "True wheels run quiet";

/** The typefaces that headlines and smaller words begin with. */
export function Typefaces({ house }: { house: House }) {
  return (
    <Section title="Typefaces">
      <Face house={house} label="Headlines" field="heading" weight={700} />
      <Face house={house} label="Smaller words" field="text" weight={400} />
    </Section>
  );
}

interface FaceProps {
  house: House;
  label: string;
  field: "heading" | "text";
  weight: number;
}

function Face({ house, label, field, weight }: FaceProps) {
  const family = house.style[field];
  return (
    <div className="grid grid-cols-[120px_1fr] items-center gap-x-3 border-b border-hairline py-2 text-[13px]">
      <span className="text-soft">{label}</span>
      <div>
        <select
          aria-label={label}
          value={family}
          onChange={(event) => house.change({ [field]: event.target.value })}
          className="min-h-7 border-b border-ink bg-transparent [&>option]:bg-sheet"
        >
          <option value="">the usual one</option>
          {house.style.families.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        {family && (
          <img
            src={sampleUrl(house.workspace, family, SAMPLE, weight, false)}
            alt={`${SAMPLE}, in ${family}`}
            className="dark-invert mt-2 block h-8 max-w-full object-contain object-left"
          />
        )}
      </div>
    </div>
  );
}
