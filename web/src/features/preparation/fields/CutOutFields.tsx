import { Button } from "../../../ui/Button";
import { Choice, Line } from "../../../ui/fields";
import { Slider } from "../../../ui/Slider";
import { useRange } from "../../../ui/useLimits";
import { Swatches } from "../../../ui/Swatches";
import type { CutTool } from "../useTools";
import { useHouseColours, type FieldsProps } from "./StepFields";

const TOOL_WORDS: Record<CutTool, string> = {
  look: "",
  box: "Draw a box around the subject, with a little air.",
  keep: "Paint over what belongs to the subject. Fitzle works out its edge.",
  drop: "Paint over what does not belong to the subject. Fitzle works out the edge.",
  erase: "Paint away by hand exactly what the brush covers.",
  restore: "Paint back by hand exactly what the brush covers.",
};

/** How it is cut out: by which engine, how tolerant, with which strokes. */
export function CutOutFields({ preparing, data, step, tools }: FieldsProps<"cut out">) {
  const offer = data.steps.find((one) => one.id === step.id)?.offer;
  const house = useHouseColours(preparing.workspace);
  const change = (words: string, fields: Partial<typeof step>) =>
    preparing.change(words, { ...step, ...fields });
  return (
    <>
      {offer && (
        <div className="mb-2 border-l-2 border-risky pl-2 text-[12px]">
          <p>{offer.words}</p>
          <Small
            press={() => {
              tools.setCut("box"); // so that it can be moved
              change("box around the subject", { box: offer.box, method: "object" });
            }}
          >
            {offer.accept}
          </Small>
        </div>
      )}
      <Choice
        label="Cut by"
        options={[
          ["auto", "choose for me"],
          ["flat", "flat backdrop"],
          ["person", "person"],
          ["object", "subject in a box"],
        ]}
        value={step.method}
        choose={(method) => {
          if (method === "object" && !step.box) tools.setCut("box");
          change("how to cut", { method });
        }}
      />
      <div className="mt-2">
        <Slider
          label="Tolerance"
          {...useRange("cut out", "tolerance", 10)}
          value={Math.round(step.tolerance * 10)}
          words={(value) => (value / 10).toFixed(1)}
          change={(value) => change("tolerance", { tolerance: value / 10 })}
        />
        <Slider
          label="Soft edge"
          {...useRange("cut out", "softness")}
          step={0.5}
          value={step.softness}
          words={(value) => `${value} px`}
          change={(softness) => change("softness", { softness })}
        />
      </div>
      <Choice
        label="Holes"
        options={[
          ["auto", "measured"],
          ["all", "all clear"],
          ["none", "none"],
        ]}
        value={step.holes}
        choose={(holes) => change("holes", { holes })}
      />
      <Brushes preparing={preparing} step={step} tools={tools} change={change} />
      <Line term="Behind it">
        <Swatches
          label="Behind it"
          colours={house}
          value={step.fill ?? null}
          none="clear"
          change={(fill) => change("fill behind", { fill })}
        />
      </Line>
    </>
  );
}

type BrushProps = Pick<FieldsProps<"cut out">, "preparing" | "step" | "tools"> & {
  change: (words: string, fields: Partial<FieldsProps<"cut out">["step"]>) => void;
};

function Brushes({ step, tools, change }: BrushProps) {
  const strokes = step.strokes.length;
  return (
    <>
      <Choice
        label="By hand"
        options={[
          ["look", "only look"],
          ["box", "box"],
          ["keep", "keep"],
          ["drop", "drop"],
          ["erase", "erase"],
          ["restore", "restore"],
        ]}
        value={tools.cut}
        choose={tools.setCut}
      />
      {tools.cut !== "look" && <p className="mt-1 text-[12px] text-soft">{TOOL_WORDS[tools.cut]}</p>}
      {tools.cut !== "look" && tools.cut !== "box" && (
        <div className="mt-1">
          <Slider
            label="Brush"
            least={1}
            most={40}
            value={Math.round(tools.brushSize * 100)}
            words={(value) => `${value} %`}
            change={(value) => tools.setBrushSize(value / 100)}
          />
          <Slider
            label="Its edge"
            least={0}
            most={100}
            step={10}
            value={Math.round(tools.brushSoftness * 100)}
            words={(value) => `${value} %`}
            change={(value) => tools.setBrushSoftness(value / 100)}
          />
        </div>
      )}
      {(strokes > 0 || step.box) && (
        <div className="mt-1 flex flex-wrap gap-x-4">
          {strokes > 0 && (
            <>
              <Small press={() => change("take back a stroke", { strokes: step.strokes.slice(0, -1) })}>
                Take back the last stroke
              </Small>
              {strokes > 1 && (
                <Small press={() => change("take back all strokes", { strokes: [] })}>
                  {`All ${strokes} strokes`}
                </Small>
              )}
            </>
          )}
          {step.box && <Small press={() => change("remove the box", { box: null })}>Remove the box</Small>}
        </div>
      )}
    </>
  );
}

function Small({ press, children }: { press: () => void; children: string }) {
  return (
    <Button look="bare" className="min-h-6 text-[12px]" onClick={press}>
      {children}
    </Button>
  );
}
