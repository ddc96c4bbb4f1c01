import { ArrowDown, ArrowUp, X } from "lucide-react";

import type { PreparationOut, Step } from "../../api/client";
import { isTyping } from "../../ui/isTyping";
import { StepFields } from "./fields/StepFields";
import { STEP_NAMES, stepResult } from "./stepWords";
import type { Tools } from "./useTools";
import type { Preparing } from "./usePreparation";

interface Props {
  preparing: Preparing;
  data: PreparationOut;
  tools: Tools;
}

/** The steps from first to last; the row of the chosen one opens in place. */
export function StepList({ preparing, data, tools }: Props) {
  const { steps } = data.document;
  return (
    <section aria-labelledby="steps">
      <h2 id="steps" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Steps, from first to last
      </h2>
      <ol>
        <li className="border-b border-hairline border-l-2 border-l-transparent py-1.5 pl-2.5 text-[13px]">
          <button type="button" onClick={() => preparing.choose(null)} className="text-left">
            <span className="font-semibold">As it came</span>
            <span className="block text-[12px] text-soft">
              {Math.round(data.before.width)} × {Math.round(data.before.height)} px, never touched
            </span>
          </button>
        </li>
        {steps.map((step, index) => (
          <Row
            key={step.id}
            preparing={preparing}
            data={data}
            step={step}
            place={[index, steps.length]}
            tools={tools}
          />
        ))}
      </ol>
    </section>
  );
}

function Row({ preparing, data, step, place, tools }: Props & { step: Step; place: [number, number] }) {
  const open = preparing.chosen?.id === step.id;
  const out = data.steps.find((one) => one.id === step.id);
  const name = STEP_NAMES[step.kind];
  const [index, count] = place;
  return (
    <li
      className={`border-b border-hairline border-l-2 text-[13px] ${open ? "border-l-measure bg-sheet" : "border-l-transparent"}`}
    >
      <div className="flex items-start gap-1 py-1.5 pr-1 pl-2.5">
        <button
          type="button"
          aria-expanded={open}
          onClick={() => preparing.choose(open ? null : step.id)}
          className="min-w-0 flex-1 text-left"
        >
          <span className={`font-semibold ${step.on ? "" : "text-soft line-through"}`}>
            {index + 1} {name}
          </span>
          <span className={`block text-[12px] ${out?.problem ? "text-refused" : "text-soft"}`}>
            {out?.problem || stepResult(step, out)}
          </span>
        </button>
        <input
          type="checkbox"
          role="switch"
          aria-label={`${name}, on`}
          title={step.on ? "Switch it off" : "Switch it on"}
          checked={step.on}
          onChange={() =>
            preparing.change(`switch ${name.toLowerCase()} ${step.on ? "off" : "on"}`, {
              ...step,
              on: !step.on,
            })
          }
          className="mt-1 size-4 accent-[var(--measure)]"
        />
        {open && count > 1 && (
          <>
            <Small words={`Make ${name} earlier`} off={index === 0} press={() => preparing.move(step, -1)}>
              <ArrowUp aria-hidden size={14} />
            </Small>
            <Small
              words={`Make ${name} later`}
              off={index === count - 1}
              press={() => preparing.move(step, 1)}
            >
              <ArrowDown aria-hidden size={14} />
            </Small>
          </>
        )}
        <Small words={`Remove ${name}`} press={() => preparing.remove(step)}>
          <X aria-hidden size={14} />
        </Small>
      </div>
      {open && (
        <div
          className="pr-2 pb-3 pl-2.5"
          onKeyDown={(event) => isTyping(event.target) && event.stopPropagation()}
        >
          <StepFields preparing={preparing} data={data} step={step} tools={tools} />
        </div>
      )}
    </li>
  );
}

interface SmallProps {
  words: string;
  off?: boolean;
  press: () => void;
  children: React.ReactNode;
}

function Small({ words, off = false, press, children }: SmallProps) {
  return (
    <button
      type="button"
      aria-label={words}
      title={words}
      disabled={off}
      onClick={press}
      className="flex size-6 shrink-0 items-center justify-center text-soft hover:text-ink disabled:opacity-30"
    >
      {children}
    </button>
  );
}
