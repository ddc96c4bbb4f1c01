import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { fixFile } from "../../api/candidateQueries";
import type { Icons } from "../../api/iconQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import type { Bench } from "../bench/useBench";

const FIELD = "min-h-8 w-full border border-ink bg-sheet px-2 text-[13px]";

/** What the site is called, where the files stand on it, and the lines for the head of every page. */
export function OnTheSite({ bench, icons }: { bench: Bench; icons: Icons }) {
  const queries = useQueryClient();
  const [path, setPath] = useState(icons.path);
  const [title, setTitle] = useState(icons.title);
  const [copied, setCopied] = useState(false);
  const save = useMutation({
    mutationFn: () =>
      fixFile(bench.workspace, bench.fit!.id, { path: path.trim() || "/", title: title.trim() }),
    onSuccess: () => queries.invalidateQueries({ queryKey: [bench.workspace] }),
  });
  const changed = (path.trim() || "/") !== icons.path || title.trim() !== icons.title;
  const copy = async () => {
    await navigator.clipboard.writeText(icons.lines);
    setCopied(true);
    setTimeout(() => setCopied(false), 2500);
  };
  return (
    <section aria-label="On the site" className="min-w-0">
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">On the site</h2>
      <form
        className="mt-3 grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (changed) save.mutate();
        }}
      >
        <label className="grid gap-1 text-[13px]">
          Its name, as a home screen shows it
          <input
            value={title}
            maxLength={120}
            placeholder={icons.usual_title}
            onChange={(event) => setTitle(event.target.value)}
            className={FIELD}
          />
        </label>
        <label className="grid gap-1 text-[13px]">
          The folder that the files stand in
          <input
            value={path}
            maxLength={200}
            spellCheck={false}
            onChange={(event) => setPath(event.target.value)}
            className={`${FIELD} figure`}
          />
        </label>
        {save.error && <Problem message={save.error.message} onDismiss={save.reset} />}
        {(changed || save.isPending) && (
          <Button look="next" type="submit" disabled={save.isPending}>
            {save.isPending ? "Writing the files anew…" : "Use these"}
          </Button>
        )}
      </form>
      <h3 className="mt-5 text-[13px] font-semibold">For the head of every page</h3>
      <pre
        tabIndex={0}
        className="figure mt-1.5 max-h-64 max-w-full overflow-auto border border-hairline bg-sheet p-2 text-[12px] leading-5"
      >
        {icons.lines}
      </pre>
      <Button look="bare" onClick={() => void copy()}>
        {copied ? "Copied" : "Copy these lines"}
      </Button>
    </section>
  );
}
