import type { Schemas } from "../../api/client";

type Place = Schemas["LearntPlaceOut"];
type Answers = Schemas["Answers"];

/** What was read off the screenshot, in figures. */
export function Facts({ place }: { place: Place }) {
  const { box, veil, cut, covered, window, seen_width: seen, grounds, sure } = place.learnt;
  const lines: [string, string][] = [
    ["Seen", `${figure(seen)} px wide`],
    ["Stands at", `${figure(box.x)}, ${figure(box.y)}, ${figure(box.width)} × ${figure(box.height)} px`],
    ["Shown of it", window ? `${figure(window.width)} × ${figure(window.height)} px` : "all"],
    ["Cut", cut.shape === "rounded" ? `rounded, ${figure(cut.radius)} px` : cut.shape],
    ["Veil", veil ? `${veil.colour}, ${Math.round(veil.opacity * 100)} %` : "none"],
    ["Covered", covered.length ? `${covered.length} ${covered.length === 1 ? "zone" : "zones"}` : "nothing"],
    ["On", grounds.join(", ") || "the edge of the screenshot"],
    ["How sure", `${Math.round(sure * 100)} %`],
  ];
  return (
    <dl className="grid grid-cols-[96px_1fr] gap-x-4 text-[14px]">
      {lines.map(([term, value]) => (
        <div key={term} className="col-span-2 grid grid-cols-subgrid border-b border-hairline py-1">
          <dt className="text-soft">{term}</dt>
          <dd className="figure">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

const figure = (value: number) => String(Number(value.toFixed(1)));

interface Props {
  place: Place;
  answers: Answers;
  answer: (answers: Answers) => void;
}

/** What could not be told, each with its candidates; the drawing of the sheet follows the answer. */
export function Questions({ place, answers, answer }: Props) {
  const { ask, cut, veil } = place.learnt;
  return (
    <div className="grid gap-3">
      {ask.includes("cut") && (
        <Question
          words="The corners could not be told. How is it cut?"
          options={[
            ["none", "square"],
            ["rounded", "rounded"],
            ["circle", "a circle"],
          ]}
          value={answers.cut ?? cut.shape}
          choose={(value) => answer({ ...answers, cut: value as Answers["cut"] })}
        />
      )}
      {ask.includes("veil") && veil && (
        <Question
          words={`It seems a little ${isDark(veil.colour) ? "darker" : "lighter"} than the picture. Does the place lay a veil over it?`}
          options={[
            ["yes", `a veil, ${Math.round(veil.opacity * 100)} %`],
            ["no", "none"],
          ]}
          value={answers.veil === false ? "no" : "yes"}
          choose={(value) => answer({ ...answers, veil: value === "yes" })}
        />
      )}
      {ask.includes("veil") && !veil && (
        <p className="border-l-2 border-risky pl-3">
          The picture is too even to tell whether the place lays a veil over it.
        </p>
      )}
      {ask.includes("relative") && !place.relative && (
        <p className="border-l-2 border-risky pl-3">
          Some of the picture seems to be missing there: perhaps another one of the same series. Look closely.
        </p>
      )}
      {ask.includes("strip") && (
        <Question
          words="Part of the picture is not seen at one edge. What becomes of it there?"
          options={[
            ["cut off", "it is cut off"],
            ["covered", "something covers it"],
          ]}
          value={answers.strip ?? "cut off"}
          choose={(value) => answer({ ...answers, strip: value as Answers["strip"] })}
        />
      )}
      {ask.includes("repeats") && (
        <p className="border-l-2 border-risky pl-3">
          The picture repeats itself: it may stand one repeat further than it was found. Look closely.
        </p>
      )}
      {ask.includes("crop") && (
        <p className="border-l-2 border-risky pl-3">
          The screenshot goes on where your picture ends: perhaps it shows another crop of the same photo.
          Show the file that was uploaded there.
        </p>
      )}
      {ask.includes("small") && (
        <p className="border-l-2 border-risky pl-3">
          It is small there, or has little in it to go by. Look closely before you take it.
        </p>
      )}
    </div>
  );
}

const isDark = (hex: string) => parseInt(hex.slice(1, 3), 16) + parseInt(hex.slice(3, 5), 16) < 255;

interface QuestionProps {
  words: string;
  options: [string, string][];
  value: string;
  choose: (value: string) => void;
}

function Question({ words, options, value, choose }: QuestionProps) {
  return (
    <fieldset className="border-l-2 border-risky pl-3">
      <legend className="float-left mb-1 w-full font-semibold">{words}</legend>
      <div className="clear-both flex flex-wrap gap-x-5">
        {options.map(([key, label]) => (
          <label key={key} className="inline-flex min-h-7 items-center gap-2">
            <input
              type="radio"
              checked={key === value}
              onChange={() => choose(key)}
              className="accent-[var(--measure)]"
            />
            {label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
