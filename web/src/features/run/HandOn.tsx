import { useMutation } from "@tanstack/react-query";
import { Popover } from "radix-ui";

import { handOn, type Run } from "../../api/runQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** Hands the run to a colleague, who may fill in its cells and change nothing else. */
export function HandOn({ workspace, run }: { workspace: string; run: Run }) {
  const make = useMutation({ mutationFn: () => handOn(workspace, run.piece) });
  const link = make.data && location.origin + make.data.path;
  return (
    <Popover.Root onOpenChange={make.reset}>
      <Popover.Trigger className="min-h-8 px-1 text-[13px] text-soft hover:text-ink hover:underline">
        Hand it on
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Hand the run on"
          className="z-40 grid w-[340px] gap-3 border border-ink bg-sheet p-4 text-[13px]"
        >
          <p>
            Whoever opens the link may fill in rows here, bring in pictures for them and have files made; the
            piece itself stays as it is. It lets one person in, within 14 days.
          </p>
          {link && (
            <p className="flex flex-wrap items-baseline gap-3">
              <span className="figure min-w-0 break-all">{link}</span>
              <Button look="bare" onClick={() => void navigator.clipboard.writeText(link)}>
                Copy it
              </Button>
            </p>
          )}
          {make.error && <Problem message={make.error.message} />}
          <Button className="justify-self-start" disabled={make.isPending} onClick={() => make.mutate()}>
            {link ? "Make another link" : "Make a link"}
          </Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
