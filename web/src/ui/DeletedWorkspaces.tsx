import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { bringWorkspaceBack } from "../api/actions";
import { sessionQuery } from "../api/queries";
import { Button } from "./Button";
import { Problem } from "./Trouble";

/** Workspaces that were deleted and are not gone yet. */
export function DeletedWorkspaces({ done }: { done?: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const leaving = useQuery(sessionQuery()).data?.leaving ?? [];
  const back = useMutation({
    mutationFn: bringWorkspaceBack,
    onSuccess: async ({ slug }) => {
      await queries.invalidateQueries({ queryKey: ["session"] });
      done?.();
      await navigate(`/w/${slug}`);
    },
  });
  if (leaving.length === 0) return null;
  return (
    <ul className="my-3 border-y border-hairline py-1 text-[13px]">
      {leaving.map((one) => (
        <li key={one.slug} className="flex items-baseline gap-3">
          <span className="min-w-0 truncate text-soft">
            {one.name}, deleted, there until {new Date(one.until).toLocaleDateString("en-GB")}
          </span>
          <Button
            look="bare"
            className="ml-auto"
            aria-label={`Bring back ${one.name}`}
            disabled={back.isPending}
            onClick={() => back.mutate(one.slug)}
          >
            Bring back
          </Button>
        </li>
      ))}
      {back.error && <Problem message={back.error.message} onDismiss={back.reset} />}
    </ul>
  );
}
