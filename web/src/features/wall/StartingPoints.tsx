import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { beginPiece } from "../../api/actions";
import { startingPointsQuery } from "../../api/queries";
import { Problem } from "../../ui/Trouble";

/** Pieces to begin with, made of the workspace's own colours, typefaces and artwork; a click opens the bench. */
export function StartingPoints({ workspace, placement }: { workspace: string; placement: string }) {
  const queries = useQueryClient();
  const go = useNavigate();
  const points = useQuery(startingPointsQuery(workspace, placement));
  const begin = useMutation({
    mutationFn: (number: number) => beginPiece(workspace, placement, number),
    onSuccess: async (fit) => {
      await queries.invalidateQueries({ queryKey: [workspace, "wall"] });
      void go(`/w/${workspace}/fits/${fit.id}`);
    },
  });
  return (
    <section className="flex min-h-44 shrink flex-col border-b-2 border-strong px-3 pt-2 pb-3">
      <h3 className="text-[13px]">Begin with</h3>
      {points.isPending && (
        <p aria-live="polite" className="mt-1 text-[12px] text-soft">
          arranging what you have for this shape…
        </p>
      )}
      <ul className="mt-1 grid max-h-[264px] min-h-0 grid-cols-3 gap-2 overflow-y-auto">
        {points.data?.map((point) => (
          <li key={point.number}>
            <button
              type="button"
              disabled={begin.isPending}
              onClick={() => begin.mutate(point.number)}
              className="group block w-full text-left"
            >
              <span className="flex h-16 items-center justify-center border border-hairline p-1 group-hover:border-measure">
                <img
                  src={`/api/workspaces/${workspace}/placements/${placement}/starting-points/${point.number}/proof?width=180`}
                  alt=""
                  className="checker light-checker max-h-full max-w-full object-contain"
                />
              </span>
              <span className="mt-0.5 block text-[11px] leading-[14px] text-soft group-hover:text-ink">
                {point.name}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {begin.error && <Problem message={begin.error.message} />}
    </section>
  );
}
