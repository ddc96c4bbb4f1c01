import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { Link } from "react-router";

import { changePlace } from "../../api/actions";
import type { WallProof } from "../../api/client";
import { shortDay } from "../../measure/days";
import { Button } from "../../ui/Button";

const STANCES = {
  "as composed": "its parts stand as they were composed",
  arranged: "its parts were arranged for this shape by calculation",
  "by hand": "somebody put parts where they stand; a change of the piece does not move those",
};

/** What is to be known of a place beside its state: how its parts came to stand, a file that it shares, and what changed in its sheet. */
export function Marks({ proof, workspace }: { proof: WallProof; workspace: string }) {
  const { shared = [], parted = "", changed = [], slots, capacity, live_since, seconds, stance } = proof;
  return (
    <>
      {stance && (
        <p className="text-[12px] leading-[16px] text-soft" title={STANCES[stance]}>
          {stance}
        </p>
      )}
      {seconds != null && (
        <p className="figure text-[12px] leading-[16px] text-soft">moves, {seconds.toFixed(1)} s</p>
      )}
      {live_since && (
        <p
          className="text-[12px] leading-[16px] text-soft"
          title={`from revision ${proof.live_revision} of its piece`}
        >
          live since {shortDay(live_since)}
        </p>
      )}
      {capacity && (
        <p className="figure text-[12px] leading-[16px] text-soft">
          {slots} of {capacity} slots
        </p>
      )}
      {shared.length > 0 && (
        <p className="text-[12px] leading-[16px] text-soft" title={shared.join(", ")}>
          same file as {shared.length > 2 ? `${shared.length} others` : shared.join(" and ")}
        </p>
      )}
      {parted && (
        <p className="text-[12px] leading-[16px] font-semibold text-risky" title={parted}>
          no longer one file
        </p>
      )}
      {changed.length > 0 && <Changed proof={proof} workspace={workspace} changed={changed} />}
    </>
  );
}

function Changed({ proof, workspace, changed }: { proof: WallProof; workspace: string; changed: string[] }) {
  const queries = useQueryClient();
  const note = useMutation({
    mutationFn: () => changePlace(workspace, proof.id, { noted: true }),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "wall"] }),
  });
  const bad = proof.state !== "fits" && proof.state !== "working";
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`min-h-6 text-left text-[12px] leading-[16px] font-semibold hover:underline ${bad ? "text-risky" : "text-soft"}`}
      >
        its sheet changed
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={12}
          aria-label={`What changed in the sheet of ${proof.name}`}
          className="z-40 w-80 border border-ink bg-sheet p-4 text-[13px]"
        >
          <h3 className="text-[14px]">{proof.name} asks otherwise now</h3>
          <ul className="mt-1">
            {changed.map((one) => (
              <li key={one} className="border-b border-hairline py-1">
                {one}
              </li>
            ))}
          </ul>
          <p className="mt-3 flex items-center gap-4">
            <Button onClick={() => note.mutate()} disabled={note.isPending}>
              Noted
            </Button>
            <Link
              to={`/w/${workspace}/places/${proof.id}`}
              className="font-semibold text-measure hover:underline"
            >
              Its sheet
            </Link>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
