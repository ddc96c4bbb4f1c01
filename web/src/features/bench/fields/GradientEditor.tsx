import { useRef, useState, type PointerEvent } from "react";

import type { Schemas } from "../../../api/client";
import type { Bench } from "../useBench";
import { ColourField } from "./ColourField";
import { Choice, Figure, Line } from "../../../ui/fields";
import { useLimits } from "../../../ui/useLimits";

type Gradient = Schemas["Gradient"];
type Stop = Schemas["Stop"];

const APART_PX = 40; // from the bar: a stop dragged farther away is taken out
const STEP = 0.01;

interface Props {
  bench: Bench;
  fill: Gradient;
  change: (fill: Gradient) => void;
}

/** A gradient: its stops on the bar itself, its form, its angle. */
export function GradientEditor({ bench, fill, change }: Props) {
  const [chosen, setChosen] = useState(0);
  const stop = fill.stops[Math.min(chosen, fill.stops.length - 1)]!;
  const edit = (next: Stop) =>
    change({ ...fill, stops: sorted(fill.stops.map((one) => (one === stop ? next : one))) });
  const centre = fill.centre ?? { x: 0.5, y: 0.5 };
  return (
    <>
      <Bar
        key={JSON.stringify(fill.stops)}
        fill={fill}
        chosen={chosen}
        choose={setChosen}
        change={(stops) => change({ ...fill, stops })}
      />
      <Line term="Stop">
        <Figure
          label="Place of the stop"
          unit="%"
          value={stop.at * 100}
          least={0}
          most={100}
          change={(value) => edit({ ...stop, at: value / 100 })}
        />
      </Line>
      <Line term="Opacity">
        <Figure
          label="Opacity of the stop"
          unit="%"
          value={(stop.opacity ?? 1) * 100}
          least={0}
          most={100}
          change={(value) => edit({ ...stop, opacity: value / 100 })}
        />
      </Line>
      <ColourField
        bench={bench}
        label="Colour"
        value={stop.colour}
        change={(colour) => colour && edit({ ...stop, colour })}
      />
      <Choice
        label="Goes"
        options={[
          ["linear", "across"],
          ["radial", "outwards"],
          ["angled", "around"],
        ]}
        value={fill.form ?? "linear"}
        choose={(form) => change({ ...fill, form })}
      />
      {fill.form === "radial" ? (
        <Line term="Centre">
          <Figure
            label="Centre across"
            unit="%"
            value={centre.x * 100}
            least={0}
            most={100}
            change={(x) => change({ ...fill, centre: { ...centre, x: x / 100 } })}
          />{" "}
          <Figure
            label="Centre down"
            unit="%"
            value={centre.y * 100}
            least={0}
            most={100}
            change={(y) => change({ ...fill, centre: { ...centre, y: y / 100 } })}
          />
        </Line>
      ) : (
        <Line term="Angle">
          <Figure
            label="Angle"
            unit="°"
            value={fill.angle ?? 0}
            least={-360}
            most={360}
            change={(angle) => change({ ...fill, angle })}
          />
        </Line>
      )}
      <Choice
        label="Mixed"
        options={[
          ["oklab", "straight"],
          ["oklch", "through the hues"],
        ]}
        value={fill.mix ?? "oklab"}
        choose={(mix) => change({ ...fill, mix })}
      />
    </>
  );
}

const sorted = (stops: Stop[]) => [...stops].sort((one, two) => one.at - two.at);

interface BarProps {
  fill: Gradient;
  chosen: number;
  choose: (index: number) => void;
  change: (stops: Stop[]) => void;
}

function Bar({ fill, chosen, choose, change }: BarProps) {
  const bar = useRef<HTMLDivElement>(null);
  const full = fill.stops.length >= useLimits().gradient_stops;
  const [stops, setStops] = useState(fill.stops);
  const [held, setHeld] = useState<number | null>(null);
  const placeOf = (event: PointerEvent) => {
    const frame = bar.current!.getBoundingClientRect();
    const away = Math.abs(event.clientY - (frame.top + frame.height / 2)) > APART_PX;
    return { at: Math.min(1, Math.max(0, (event.clientX - frame.left) / frame.width)), away };
  };
  const painted = stops.map((stop) => `${stop.colour} ${stop.at * 100}%`).join(", ");
  return (
    <div className="mt-3 mb-5">
      <div
        ref={bar}
        className="relative h-5 cursor-copy border border-hairline"
        style={{ background: `linear-gradient(to right in ${fill.mix ?? "oklab"}, ${painted})` }}
        title={full ? "There are as many stops as a gradient has" : "Click to add a stop"}
        onPointerDown={(event) => {
          if (full) return;
          const { at } = placeOf(event);
          const nearest = [...stops].sort((one, two) => Math.abs(one.at - at) - Math.abs(two.at - at))[0]!;
          const next = sorted([
            ...stops,
            { at: Math.round(at * 100) / 100, colour: nearest.colour, opacity: 1 },
          ]);
          choose(next.findIndex((stop) => stop.at === Math.round(at * 100) / 100));
          change(next);
        }}
      >
        {stops.map((stop, index) => (
          <button
            key={index}
            type="button"
            aria-label={`Stop ${index + 1} at ${Math.round(stop.at * 100)} %, ${stop.colour}`}
            aria-pressed={index === chosen}
            className="absolute top-3 flex size-6 -translate-x-1/2 cursor-ew-resize touch-none items-center justify-center"
            style={{ left: `${stop.at * 100}%` }}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              choose(index);
              setHeld(index);
            }}
            onPointerMove={(event) => {
              if (held !== index) return;
              const least = stops[index - 1]?.at ?? 0;
              const most = stops[index + 1]?.at ?? 1;
              const at = Math.min(most, Math.max(least, placeOf(event).at));
              setStops(
                stops.map((one, place) =>
                  place === index ? { ...one, at: Math.round(at * 1000) / 1000 } : one,
                ),
              );
            }}
            onPointerUp={(event) => {
              setHeld(null);
              if (placeOf(event).away && stops.length > 2)
                change(stops.filter((_, place) => place !== index));
              else if (stops !== fill.stops) change(stops);
            }}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
              if (by)
                change(
                  sorted(
                    stops.map((one, place) =>
                      place === index ? { ...one, at: Math.min(1, Math.max(0, one.at + by)) } : one,
                    ),
                  ),
                );
              if ((event.key === "Delete" || event.key === "Backspace") && stops.length > 2) {
                change(stops.filter((_, place) => place !== index));
              }
              event.stopPropagation();
            }}
          >
            <span
              className={`size-3.5 border-2 ${index === chosen ? "border-measure" : "border-ink"}`}
              style={{ background: stop.colour }}
            />
          </button>
        ))}
      </div>
    </div>
  );
}
