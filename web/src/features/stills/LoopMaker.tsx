import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Slider } from "radix-ui";
import { useState } from "react";

import { bestLoop, takeLoop, type Cut } from "../../api/clipActions";
import type { Schemas } from "../../api/client";
import { clock } from "../../measure/clock";
import { Button } from "../../ui/Button";
import { Figure, Select } from "../../ui/fields";
import { Problem } from "../../ui/Trouble";
import { ByteGauge } from "./ByteGauge";
import type { Clip } from "./useClip";

interface Props {
  workspace: string;
  artwork: string;
  stills: Schemas["StillsOut"];
  clip: Clip;
}

const STEP_S = 0.01;
const USUAL_S = 3;
const LEAST_S = 0.1;
const CLOSINGS: Record<string, Cut["closing"]> = {
  "cuts to its beginning": "cut",
  "fades into its beginning": "smooth",
  "plays backwards again": "back",
};
const hundredth = (seconds: number) => Math.round(seconds * 100) / 100;

/** A part of the clip that plays again and again: two ends on its line, exact figures, and how the end meets the begin. */
export function LoopMaker({ workspace, artwork, stills, clip }: Props) {
  const queries = useQueryClient();
  const [ends, setEnds] = useState<[number, number]>([0, hundredth(Math.min(USUAL_S, stills.seconds))]);
  const [closing, setClosing] = useState("fades into its beginning");
  const [begin, end] = ends;
  const make = useMutation({
    mutationFn: () => takeLoop(workspace, artwork, { begin, end, closing: CLOSINGS[closing]! }),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: [workspace, "stills", artwork] });
      void queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
    },
  });
  const better = useMutation({
    mutationFn: () => bestLoop(workspace, artwork, begin, end),
    onSuccess: (found) => {
      clip.go(found.begin);
      setEnds([hundredth(found.begin), hundredth(found.end)]);
    },
  });
  const move = (next: [number, number]) => {
    clip.go(next[0] !== begin ? next[0] : next[1]);
    setEnds(next);
  };
  const most = stills.seconds;
  const length = end - begin;
  const long = length > stills.longest_loop;
  return (
    <section aria-labelledby="loop" className="mt-5">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 id="loop" className="text-[14px]">
          A loop
        </h2>
        <span className="figure text-measure">{length.toFixed(2)} s</span>
        <span className="text-[13px] text-soft">for places whose picture moves</span>
      </div>
      <Slider.Root
        min={0}
        max={most}
        step={STEP_S}
        minStepsBetweenThumbs={LEAST_S / STEP_S}
        value={ends}
        onValueChange={([from, to]) => move([hundredth(from!), hundredth(to!)])}
        className="relative mt-1 flex h-8 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-px grow bg-ink">
          <Slider.Range className="absolute top-[-3px] h-[7px] border-x border-measure bg-measure" />
        </Slider.Track>
        {(["begins", "ends"] as const).map((name, index) => (
          <Slider.Thumb
            key={name}
            aria-label={`The loop ${name}`}
            aria-valuetext={clock(ends[index]!)}
            className="block h-6 w-2 border border-measure bg-sheet outline-offset-2"
          />
        ))}
      </Slider.Root>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 text-[13px]">
        <span className="flex items-center gap-2">
          <span aria-hidden className="text-soft">
            from
          </span>
          <Figure
            label="Begins at second"
            value={begin}
            step={STEP_S}
            least={0}
            most={hundredth(end - LEAST_S)}
            unit="s"
            change={(value) => move([value, end])}
          />
          <span aria-hidden className="text-soft">
            to
          </span>
          <Figure
            label="Ends at second"
            value={end}
            step={STEP_S}
            least={hundredth(begin + LEAST_S)}
            most={hundredth(most)}
            unit="s"
            change={(value) => move([begin, value])}
          />
        </span>
        <span className="flex items-center gap-2">
          <span aria-hidden className="text-soft">
            its end
          </span>
          <Select
            label="How the end meets the beginning"
            options={Object.keys(CLOSINGS)}
            value={closing}
            choose={setClosing}
          />
        </span>
        <Button look="bare" disabled={better.isPending || long} onClick={() => better.mutate()}>
          {better.isPending ? "Looking for it…" : "Find where it closes best"}
        </Button>
        <Button disabled={make.isPending || long} onClick={() => make.mutate()}>
          Make a moving picture of it
        </Button>
      </div>
      {!long && (
        <ByteGauge
          workspace={workspace}
          artwork={artwork}
          begin={begin}
          end={end}
          closing={CLOSINGS[closing]!}
        />
      )}
      {long && (
        <p className="mt-1 text-[13px] text-soft">
          At most {stills.longest_loop} s: move its ends closer together.
        </p>
      )}
      {make.isSuccess && (
        <p role="status" className="mt-1 text-[13px] text-soft">
          {make.data.name} is being made; it comes first among the artwork.
        </p>
      )}
      {(make.error ?? better.error) && <Problem message={(make.error ?? better.error)!.message} />}
    </section>
  );
}
