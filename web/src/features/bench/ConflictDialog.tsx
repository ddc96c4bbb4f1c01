import { AlertDialog } from "radix-ui";

import { Button } from "../../ui/Button";
import type { Conflict } from "./useBench";

interface Clash {
  change: { part: string; field: string; value: unknown };
  newest: unknown;
}

/** Two people changed the same thing: both values, and the choice. Nothing is lost until one is chosen. */
export function ConflictDialog({
  conflict,
  settle,
}: {
  conflict: Conflict;
  settle: (mine: boolean) => void;
}) {
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-[var(--shade)]" />
        <AlertDialog.Content className="fixed top-1/4 left-1/2 z-40 w-[min(480px,90vw)] -translate-x-1/2 border border-ink bg-sheet p-6">
          <AlertDialog.Title className="text-lg">
            This was changed elsewhere in the meantime.
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-1 text-soft">
            In another window or by a colleague. Which one should stay?
          </AlertDialog.Description>
          <table className="mt-4 w-full text-left text-[13px]">
            <thead className="border-b-2 border-strong">
              <tr>
                <th className="py-1 font-semibold">What</th>
                <th className="font-semibold">Yours</th>
                <th className="font-semibold">Theirs</th>
              </tr>
            </thead>
            <tbody>
              {(conflict.newest.clashes as Clash[]).map(({ change, newest }) => (
                <tr key={`${change.part}.${change.field}`} className="border-b border-hairline align-top">
                  <td className="py-1.5">{`${change.field} of the ${change.part}`}</td>
                  <td className="figure py-2">{words(change.value)}</td>
                  <td className="figure py-2">{words(newest)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-5 flex justify-end gap-3">
            <AlertDialog.Cancel asChild>
              <Button onClick={() => settle(false)}>Take theirs</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button look="next" onClick={() => settle(true)}>
                Keep mine
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

function words(value: unknown): string {
  if (value === null || value === undefined) return "automatic";
  if (typeof value !== "object") return String(value);
  return Object.entries(value)
    .map(([key, entry]) => (key === "unit" || key === "value" ? String(entry) : `${key} ${String(entry)}`))
    .join(" ");
}
