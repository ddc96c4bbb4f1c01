import { Link } from "react-router";

import type { Schemas } from "../../api/client";

/** To the list of what a delivery hands over: what changed since the last one, else all that fits. */
export function DeliverLink({ wall, workspace }: { wall: Schemas["Wall"]; workspace: string }) {
  const changed = wall.changed > 0;
  if (wall.deliverable === 0) return null;
  const words = !changed
    ? `Deliver all ${wall.deliverable} again`
    : wall.changed === wall.deliverable
      ? `Deliver all ${wall.changed}`
      : `Deliver ${wall.changed} that changed`;
  return (
    <Link
      to={`/w/${workspace}/deliver`}
      className={`inline-flex min-h-8 items-center rounded-[3px] border px-3 py-1 text-[13px] font-semibold whitespace-nowrap ${changed ? "border-next bg-next text-on-next hover:opacity-90" : "border-ink hover:bg-sheet"}`}
    >
      {words}
    </Link>
  );
}
