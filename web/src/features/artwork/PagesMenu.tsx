import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";

import { takePages } from "../../api/clipActions";
import type { ArtworkOut } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** Chooses further pages of a document; each becomes artwork of its own. */
export function PagesMenu({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const [chosen, setChosen] = useState<number[]>([]);
  const [open, setOpen] = useState(false);
  const queries = useQueryClient();
  const take = useMutation({
    mutationFn: () => takePages(workspace, artwork.id, chosen),
    onSuccess: () => {
      setOpen(false);
      setChosen([]);
      void queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
    },
  });
  const others = Array.from({ length: (artwork.facts?.pages ?? 1) - 1 }, (_, index) => index + 2);
  const toggle = (page: number) =>
    setChosen((all) => (all.includes(page) ? all.filter((one) => one !== page) : [...all, page]));
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="min-h-8 text-[13px] font-semibold text-measure hover:underline">
        Its other pages
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          className="z-20 w-72 border border-ink bg-sheet p-3 text-[13px]"
        >
          <div className="grid max-h-60 grid-cols-5 gap-1 overflow-y-auto">
            {others.map((page) => (
              <label key={page} className="flex min-h-7 items-center gap-1.5">
                <input
                  type="checkbox"
                  aria-label={`Page ${page}`}
                  checked={chosen.includes(page)}
                  onChange={() => toggle(page)}
                  className="size-4 accent-[var(--measure)]"
                />
                <span className="figure">{page}</span>
              </label>
            ))}
          </div>
          <div className="mt-3 flex items-center gap-3">
            <Button
              look="next"
              disabled={chosen.length === 0 || take.isPending}
              onClick={() => take.mutate()}
            >
              {`Make artwork of ${plural(chosen.length, "page", "pages")}`}
            </Button>
            {take.error && <Problem message={take.error.message} />}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
