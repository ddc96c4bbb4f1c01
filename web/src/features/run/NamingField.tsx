import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState, type FormEvent } from "react";

import { nameFiles, runQuery, type Run } from "../../api/runQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** The rule for the names of a run's files, with what the first would be called. */
export function NamingField({ workspace, run }: { workspace: string; run: Run }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [rule, setRule] = useState(run.naming);
  const save = useMutation({
    mutationFn: (wanted: string) => nameFiles(workspace, run.piece, wanted),
    onSuccess: (newest) => {
      queries.setQueryData(runQuery(workspace, run.piece).queryKey, newest);
      setRule(newest.naming);
      setOpen(false);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate(rule);
  };
  const tokens = [...run.fields.map((field) => field.name), "row", "subject", "placement", "size"];
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setRule(run.naming);
        save.reset();
      }}
    >
      <Popover.Trigger className="min-h-8 text-left text-[13px] text-soft hover:text-ink hover:underline">
        Called <span className="figure text-measure">{run.example || run.naming}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Names of the files"
          className="z-40 w-[340px] border border-ink bg-sheet p-4 text-[13px]"
        >
          <form onSubmit={submit} className="grid gap-3">
            <label className="grid gap-1">
              <span className="font-semibold">The files are called</span>
              <input
                value={rule}
                onChange={(event) => setRule(event.target.value)}
                className="figure min-h-8 border-b border-ink bg-transparent"
              />
            </label>
            <div className="flex flex-wrap gap-x-3 gap-y-1">
              {tokens.map((token) => (
                <button
                  key={token}
                  type="button"
                  className="figure min-h-6 text-measure hover:underline"
                  onClick={() => setRule(`${rule}{${token}}`)}
                >
                  {`{${token}}`}
                </button>
              ))}
            </div>
            {save.error && <Problem message={save.error.message} />}
            <div className="flex items-center gap-4">
              <Button type="submit" look="next" disabled={save.isPending}>
                Keep this name
              </Button>
              {run.own_naming && (
                <Button look="bare" onClick={() => save.mutate("")}>
                  The usual name
                </Button>
              )}
            </div>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
