import { useMutation, useQueryClient } from "@tanstack/react-query";

import { rememberHanding, type Handing, type ReadyFit } from "../../api/deliveryQueries";
import { Problem } from "../../ui/Trouble";

const REPLACING: [NonNullable<Handing["replacing"]>, string][] = [
  ["rule", "as the naming rule says"],
  ["same", "the same as before"],
  ["version", "with a version in its name"],
];

/** What goes with a place's file, and what a replacement is called; remembered with the place. */
export function HandingFields({ workspace, fit }: { workspace: string; fit: ReadyFit }) {
  const queries = useQueryClient();
  const remember = useMutation({
    mutationFn: (handing: Handing) => rememberHanding(workspace, fit.placement, handing),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "ready"] }),
  });
  const { also = [], replacing = "rule" } = fit.handing;
  if (fit.variants.length === 0) return null;
  return (
    <section aria-label={`What goes with ${fit.placement_name}`} className="text-[13px]">
      <h3 className="font-semibold">Also</h3>
      <div className="mt-1 grid gap-1">
        {fit.variants.map(({ name: variant, words }) => (
          <label key={variant} className="flex min-h-6 items-center gap-2">
            <input
              type="checkbox"
              checked={also.includes(variant)}
              onChange={(event) =>
                remember.mutate({
                  replacing,
                  also: event.target.checked ? [...also, variant] : also.filter((one) => one !== variant),
                })
              }
              className="size-4 accent-[var(--ink)]"
            />
            {words}
          </label>
        ))}
      </div>
      <label className="mt-3 grid gap-1">
        <span className="font-semibold">A file that replaces one is called</span>
        <select
          value={replacing}
          onChange={(event) => remember.mutate({ also, replacing: event.target.value as typeof replacing })}
          className="min-h-8 border border-ink bg-sheet px-1"
        >
          {REPLACING.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {remember.error && <Problem message={remember.error.message} onDismiss={remember.reset} />}
    </section>
  );
}
