import { useMutation, useQueryClient } from "@tanstack/react-query";

import { changeDestination } from "../../api/actions";
import type { Schemas } from "../../api/client";

interface Change {
  destination: string;
  body: Partial<Schemas["DestinationChange"]>;
}

/** Saves a change of a destination, and shows the wall as it is then. */
export function useDestination(workspace: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ destination, body }: Change) => changeDestination(workspace, destination, body),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "wall"] }),
  });
}
