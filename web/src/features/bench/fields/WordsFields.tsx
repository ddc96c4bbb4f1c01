import type { FitOut, PartOut, Schemas } from "../../../api/client";
import { TypefaceChooser } from "../TypefaceChooser";
import type { Bench } from "../useBench";
import { ColourField } from "./ColourField";
import { Effects } from "./Effects";
import { Choice, Figure, Line, Select } from "../../../ui/fields";
import { useRange } from "../../../ui/useLimits";

type Words = Schemas["WordsPart"];

const BREAKS: Record<string, NonNullable<Words["line_breaks"]>> = {
  "may go in flat shapes": "flexible",
  "stay everywhere": "kept",
  "not used": "dropped",
};
const labelOf = (breaks: Words["line_breaks"]) =>
  Object.keys(BREAKS).find((label) => BREAKS[label] === breaks)!;

interface Props {
  bench: Bench;
  fit: FitOut;
  part: Words;
  placed?: PartOut;
}

/** Words: what they say, in which typeface, how large, in which colour, and what stands around them. */
export function WordsFields({ bench, fit, part, placed }: Props) {
  const set = (step: string, field: string, value: unknown) =>
    bench.change(step, [{ part: part.id, field, value }]);
  const unit = Math.min(fit.width, fit.height);
  const words = placed?.words;
  const spacings = useRange("words", "letter_spacing", 100);
  const heights = useRange("words", "line_height", 100);
  return (
    <>
      <TextField key={part.text} text={part.text} change={(text) => set("change the words", "text", text)} />
      <Line term="Face">
        <TypefaceChooser bench={bench} fit={fit} part={part} />
      </Line>
      <Line term="Size">
        <span className="flex flex-wrap items-baseline gap-x-2">
          <Select
            label="Size"
            options={["fills its box", "at most"]}
            value={part.size ? "at most" : "fills its box"}
            choose={(way) =>
              set("change the size", "size", way === "at most" ? (words?.size_px ?? 40) / unit : null)
            }
          />
          {part.size ? (
            <Figure
              label="Size at most"
              unit="px"
              value={part.size * unit}
              least={1}
              change={(px) => set("change the size", "size", px / unit)}
            />
          ) : (
            <span className="figure text-measure">{words && `${Math.round(words.size_px)} px`}</span>
          )}
        </span>
      </Line>
      <ColourField
        bench={bench}
        label="Colour"
        none={words && part.colour === "auto" ? `automatic, ${words.colour}` : "automatic"}
        value={part.colour === "auto" ? null : (part.colour ?? null)}
        against={part.id}
        change={(colour) => set("colour the words", "colour", colour ?? "auto")}
      />
      {words?.contrast != null && (
        <Line term="Contrast">
          <span className="figure text-measure" title="with what is really behind the words">
            {words.contrast.toFixed(1)} : 1
          </span>
        </Line>
      )}
      <Choice
        label="Lines"
        options={[
          ["left", "left"],
          ["centre", "centred"],
          ["right", "right"],
        ]}
        value={part.align ?? "left"}
        choose={(align) => set("align the lines", "align", align)}
      />
      {(part.text.includes("\n") || part.line_breaks === "dropped") && (
        <Line term="Line breaks">
          <Select
            label="Line breaks"
            options={Object.keys(BREAKS)}
            value={labelOf(part.line_breaks ?? "flexible")}
            choose={(label) => set("change the line breaks", "line_breaks", BREAKS[label])}
          />
        </Line>
      )}
      <Choice
        label="In the box"
        options={[
          ["top", "top"],
          ["middle", "middle"],
          ["bottom", "bottom"],
        ]}
        value={part.vertical_align ?? "middle"}
        choose={(level) => set("move the words in their box", "vertical_align", level)}
      />
      <Line term="Letters">
        <Select
          label="Case"
          options={["as typed", "capitals", "small letters", "first letters"]}
          value={part.case ?? "as typed"}
          choose={(value) => set("change the case", "case", value)}
        />
      </Line>
      <Line term="Spacing">
        <Figure
          label="Letter spacing"
          unit="%"
          value={(part.letter_spacing ?? 0) * 100}
          {...spacings}
          change={(value) => set("space the letters", "letter_spacing", value / 100)}
        />
      </Line>
      <Line term="Line height">
        <Figure
          label="Line height"
          unit="%"
          value={(part.line_height ?? 1.1) * 100}
          {...heights}
          change={(value) => set("change the line height", "line_height", value / 100)}
        />
      </Line>
      <Effects bench={bench} part={part} />
    </>
  );
}

function TextField({ text, change }: { text: string; change: (text: string) => void }) {
  const done = (next: string) => next !== text && change(next);
  return (
    <textarea
      aria-label="Words"
      rows={Math.min(4, text.split("\n").length + 1)}
      defaultValue={text}
      maxLength={1000}
      onBlur={(event) => done(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) event.currentTarget.blur();
      }}
      className="mt-1 w-full resize-y border border-hairline bg-transparent px-2 py-1 text-[13px] focus:border-measure"
    />
  );
}
