import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";

import { deleteWatermark, watermarksQuery } from "../../api/watermarkQueries";
import { moment } from "../../measure/days";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** Other watermarks of the workspace: to go on with, to save once more, or to take away. */
export function Earlier({ workspace, watermark }: { workspace: string; watermark: string }) {
  const queries = useQueryClient();
  const all = useQuery(watermarksQuery(workspace));
  const remove = useMutation({
    mutationFn: (one: string) => deleteWatermark(workspace, one),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "watermarks"] }),
  });
  const others = (all.data ?? []).filter((one) => one.id !== watermark && one.pictures > 0);
  if (others.length === 0) return null;
  return (
    <section aria-label="Earlier ones" className="mt-9 max-w-[860px]">
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">Earlier ones</h2>
      {remove.error && <Problem message={remove.error.message} onDismiss={remove.reset} />}
      <ul className="text-[13px]">
        {others.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-1">
            <Link
              to={`/w/${workspace}/watermarks/${one.id}`}
              className="inline-flex min-h-6 items-center font-semibold hover:underline"
            >
              {one.mark_name || "a mark that is gone"}
            </Link>
            <span className="text-soft">
              {plural(one.pictures, "picture", "pictures")}, {one.made} marked, {moment(one.made_at)}
              {one.by && ` by ${one.by}`}
            </span>
            <Button
              look="bare"
              className="ml-auto"
              aria-label={`Take ${one.mark_name} away`}
              disabled={remove.isPending}
              onClick={() => remove.mutate(one.id)}
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
