import type { PartMotion, Track } from "../../../api/motionQueries";
import { Select } from "../../../ui/fields";
import { Slider } from "../../../ui/Slider";

const THERE = "is there from the start";
const STANDS = "stands";
const STAYS = "stays";

interface Props {
  track: Track;
  set: (motion: PartMotion) => void;
}

/** How a part comes in, keeps moving and goes out, chosen by name; what there is to choose the server says. */
export function Movements({ track, set }: Props) {
  const { motion, choices } = track;
  const { come, keep, go } = motion;
  const step = (name: "come" | "go", how: string, none: string) =>
    set({ ...motion, [name]: how === none ? null : { ...(motion[name] ?? choices[name]), how } });
  const strength = (percent: number) =>
    keep && set({ ...motion, keep: { ...keep, strength: percent / 100 } });
  return (
    <div className="col-span-2 flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-hairline py-2">
      {choices.entrances.length > 0 && (
        <Choice
          words="Comes in"
          name={track.name}
          options={[THERE, ...choices.entrances]}
          value={come?.how ?? THERE}
          choose={(how) => step("come", how, THERE)}
        />
      )}
      <Choice
        words="Keeps moving"
        name={track.name}
        options={[STANDS, ...choices.keepings]}
        value={keep?.how ?? STANDS}
        choose={(how) =>
          set({
            ...motion,
            keep: how === STANDS ? null : ({ ...(keep ?? choices.keep), how } as PartMotion["keep"]),
          })
        }
      />
      {keep && !track.ground && (
        <span className="w-56">
          <Slider
            label="How much"
            value={Math.round(100 * keep.strength)}
            words={(value) => `${value} %`}
            change={strength}
          />
        </span>
      )}
      {choices.entrances.length > 0 && (
        <Choice
          words="Goes out"
          name={track.name}
          options={[STAYS, ...choices.entrances]}
          value={go?.how ?? STAYS}
          choose={(how) => step("go", how, STAYS)}
        />
      )}
    </div>
  );
}

interface ChoiceProps {
  words: string;
  name: string;
  options: string[];
  value: string;
  choose: (value: string) => void;
}

function Choice({ words, name, options, value, choose }: ChoiceProps) {
  return (
    <span className="flex items-center gap-2">
      <span aria-hidden className="text-soft">
        {words}
      </span>
      <Select label={`${name}: ${words.toLowerCase()}`} options={options} value={value} choose={choose} />
    </span>
  );
}
