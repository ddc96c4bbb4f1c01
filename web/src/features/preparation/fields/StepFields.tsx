import { useQuery } from "@tanstack/react-query";

import type { PreparationOut, Schemas, Step, StepOf } from "../../../api/client";
import { houseStyleQuery } from "../../../api/queries";
import { Choice, Figure, Line } from "../../../ui/fields";
import { Button } from "../../../ui/Button";
import { useLimits, useRange } from "../../../ui/useLimits";
import { Slider } from "../../../ui/Slider";
import { ADJUSTMENTS, signed } from "../stepWords";
import type { Tools } from "../useTools";
import type { Preparing } from "../usePreparation";
import { CropFields } from "./CropFields";
import { CutOutFields } from "./CutOutFields";
import { RecolourFields } from "./RecolourFields";

export interface FieldsProps<Kind extends Step["kind"]> {
  preparing: Preparing;
  data: PreparationOut;
  step: StepOf<Kind>;
  tools: Tools;
}

interface Props {
  preparing: Preparing;
  data: PreparationOut;
  step: Step;
  tools: Tools;
}

/** The figures of a step; those of the picture itself are on the stage. */
export function StepFields(props: Props) {
  const { step, ...rest } = props;
  switch (step.kind) {
    case "turn":
      return <TurnFields {...rest} step={step} />;
    case "mirror":
      return <MirrorFields {...rest} step={step} />;
    case "straighten":
      return <StraightenFields {...rest} step={step} />;
    case "crop":
      return <CropFields {...rest} step={step} />;
    case "trim":
      return <TrimFields {...rest} step={step} />;
    case "adjust":
      return <AdjustFields {...rest} step={step} />;
    case "red eyes":
      return <RedEyesFields {...rest} step={step} />;
    case "cut out":
      return <CutOutFields {...rest} step={step} />;
    case "clean edge":
      return <CleanEdgeFields {...rest} step={step} />;
    case "recolour":
      return <RecolourFields {...rest} step={step} />;
    case "trace":
      return <TraceFields {...rest} step={step} />;
  }
}

/** The colours of the house, to choose from. */
export function useHouseColours(workspace: string): string[] {
  return useQuery(houseStyleQuery(workspace)).data?.colours.map((colour) => colour.hex) ?? [];
}

function TurnFields({ preparing, step }: FieldsProps<"turn">) {
  return (
    <Choice
      label="Clockwise"
      options={[
        ["1", "90°"],
        ["2", "180°"],
        ["3", "270°"],
      ]}
      value={String(step.quarters)}
      choose={(quarters) => preparing.change("turn", { ...step, quarters: Number(quarters) })}
    />
  );
}

function MirrorFields({ preparing, step }: FieldsProps<"mirror">) {
  return (
    <Choice
      label="Trade"
      options={[
        ["left and right", "left and right"],
        ["top and bottom", "top and bottom"],
      ]}
      value={step.across}
      choose={(across) => preparing.change("mirror", { ...step, across })}
    />
  );
}

function StraightenFields({ preparing, step }: FieldsProps<"straighten">) {
  return (
    <>
      <Line term="Turn by">
        <Figure
          label="Turn by"
          unit="° clockwise"
          step={0.1}
          {...useRange("straighten", "degrees")}
          value={step.degrees}
          change={(degrees) => preparing.change("straighten", { ...step, degrees })}
        />
      </Line>
      <p className="mt-1.5 text-[12px] text-soft">
        Or draw a line on the picture along something that should be level or upright.
      </p>
    </>
  );
}

function TrimFields({ preparing, step }: FieldsProps<"trim">) {
  return (
    <Slider
      label="Tolerance"
      {...useRange("trim", "tolerance", 100)}
      value={Math.round(step.tolerance * 100)}
      words={(value) => `${value} %`}
      change={(value) => preparing.change("trim", { ...step, tolerance: value / 100 })}
    />
  );
}

function CleanEdgeFields({ preparing, step }: FieldsProps<"clean edge">) {
  return (
    <Slider
      label="Reaches in"
      {...useRange("clean edge", "width")}
      value={step.width}
      words={(value) => `${value} px of 1280`}
      change={(width) => preparing.change("clean edge", { ...step, width })}
    />
  );
}

const percentOf = (range?: Schemas["Range"]) => ({
  least: (range?.least ?? -1) * 100,
  most: (range?.most ?? 1) * 100,
});

function AdjustFields({ preparing, step }: FieldsProps<"adjust">) {
  const ranges = useLimits().ranges.adjust ?? {};
  return (
    <div className="mt-1">
      {ADJUSTMENTS.map((name) => (
        <Slider
          key={name}
          label={name}
          {...percentOf(ranges[name])}
          value={Math.round(step[name] * 100)}
          words={(value) => signed(value / 100)}
          change={(value) => preparing.change(name, { ...step, [name]: value / 100 })}
        />
      ))}
      <Button
        look="bare"
        className="mt-1 min-h-6 text-[12px]"
        onClick={() => preparing.propose("improve", step.id)}
      >
        Measure and propose figures
      </Button>
    </div>
  );
}

function RedEyesFields({ preparing, step }: FieldsProps<"red eyes">) {
  return (
    <>
      <p className="mt-1 text-[12px] text-soft">
        Click on an eye in the picture to add one. The wheel, or + and −, makes its circle fit.
      </p>
      <ul>
        {step.eyes.map((eye, index) => (
          <li key={`${eye.x} ${eye.y}`} className="flex items-baseline gap-3 border-b border-hairline py-1">
            <span className="figure flex-1">
              {Math.round(eye.x * 100)} % across, {Math.round(eye.y * 100)} % down
            </span>
            <Button
              look="bare"
              className="min-h-6 text-[12px]"
              onClick={() =>
                preparing.change("remove an eye", {
                  ...step,
                  eyes: step.eyes.filter((_, number) => number !== index),
                })
              }
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <Button
        look="bare"
        className="mt-1 min-h-6 text-[12px]"
        onClick={() => preparing.propose("red-eyes", step.id)}
      >
        Find them
      </Button>
    </>
  );
}

function TraceFields({ preparing, step }: FieldsProps<"trace">) {
  return (
    <Slider
      label="Colours"
      {...useRange("trace", "colours")}
      value={step.colours}
      words={(value) => (value ? String(value) : "auto")}
      change={(colours) => preparing.change("number of colours", { ...step, colours })}
    />
  );
}
