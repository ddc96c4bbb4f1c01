import type { FormEvent, ReactNode } from "react";

import { Dimension } from "../../ui/Dimension";
import { Wordmark } from "../../ui/Header";

const SHAPES = [
  [176, 99],
  [132, 34],
  [60, 60],
  [16, 16],
] as const;

interface Props {
  title: string;
  submit?: () => void;
  children: ReactNode;
}

/** What is seen before one is in: what Fitzle is for, and one form. */
export function Entrance({ title, submit, children }: Props) {
  const send = (event: FormEvent) => {
    event.preventDefault();
    submit?.();
  };
  return (
    <main className="mx-auto grid min-h-screen max-w-5xl content-center gap-x-20 gap-y-10 px-7 py-8 md:grid-cols-[1fr_340px]">
      <section>
        <Wordmark />
        <p className="mt-6 max-w-[16ch] font-heading text-[40px] leading-[1.08] font-bold text-balance">
          Say where it goes. Fitzle works out the rest.
        </p>
        <div className="mt-10 flex items-end gap-7 border-b-2 border-strong max-sm:gap-4" aria-hidden>
          {SHAPES.map(([width, height]) => (
            <span key={width} className="block border border-dashed border-soft" style={{ width, height }} />
          ))}
        </div>
        <div className="mt-1.5 flex gap-7 max-sm:gap-4" aria-hidden>
          {SHAPES.map(([width]) => (
            <Dimension key={width} width={width} figure={String(width)} />
          ))}
        </div>
      </section>
      <form onSubmit={send} className="self-center">
        <h1 className="mb-5 border-b-2 border-strong pb-2 text-lg">{title}</h1>
        {children}
      </form>
    </main>
  );
}
