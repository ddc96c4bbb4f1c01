import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { changePlace } from "../../api/actions";
import { putAwayPlacesQuery } from "../../api/queries";
import { Problem } from "../../ui/Trouble";

/** Places that were put away, each with the way back. */
export function PutAway({ workspace }: { workspace: string }) {
  const queries = useQueryClient();
  const away = useQuery(putAwayPlacesQuery(workspace));
  const back = useMutation({
    mutationFn: (id: string) => changePlace(workspace, id, { put_away: false }),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }),
  });
  if (!away.data?.length) return null;
  return (
    <section className="mt-9 text-[14px]">
      <h2 className="border-b border-strong pb-1 text-[14px]">Put away</h2>
      {back.error && <Problem message={back.error.message} onDismiss={back.reset} />}
      <ul>
        {away.data.map((place) => (
          <li key={place.id} className="flex items-baseline gap-4 border-b border-hairline py-1">
            <span className="min-w-0 truncate">
              {place.name} <span className="text-soft">at {place.destination}</span>
            </span>
            <button
              type="button"
              className="ml-auto min-h-6 shrink-0 text-measure hover:underline"
              aria-label={`Bring back ${place.name}`}
              onClick={() => back.mutate(place.id)}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
