import type { ReactNode } from "react";

/** A headed part of the house style. */
export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="border-b-2 border-strong pb-1.5 text-[14px]">{title}</h2>
      {children}
    </section>
  );
}
