import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";

import { joinBy, joiningQuery } from "../../api/runQueries";
import { sessionQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem, Trouble } from "../../ui/Trouble";

/** Where a link leads that hands a run on: who lets one in, and to what. */
export function JoinScreen() {
  const { secret = "" } = useParams();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const found = useQuery(joiningQuery(secret));
  const join = useMutation({
    mutationFn: () => joinBy(secret),
    onSuccess: async ({ path }) => {
      await queries.invalidateQueries({ queryKey: sessionQuery().queryKey });
      void navigate(path);
    },
  });
  if (found.error) return <Trouble error={found.error} />;
  if (!found.data) return <main aria-busy className="px-7 py-20" />;
  return (
    <main className="mx-auto max-w-xl px-7 py-20">
      <h1 className="mb-3 text-2xl">
        {found.data.by} asks you to fill in rows of {found.data.workspace}.
      </h1>
      <p className="mb-6 text-soft">
        You may change the cells of its series, bring in pictures for them and have their files made.
      </p>
      {join.error && <Problem message={join.error.message} />}
      <Button look="next" disabled={join.isPending} onClick={() => join.mutate()}>
        Fill in the rows
      </Button>
    </main>
  );
}
