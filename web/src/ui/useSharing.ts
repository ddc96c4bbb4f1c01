import { useMutation, useQueryClient } from "@tanstack/react-query";

import { giveItsOwnFile, shareFile } from "../api/placeActions";

/** Lets one file serve several places, or gives one its own again; everything is shown as it is then. */
export function useSharing(workspace: string) {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: [workspace] });
  const join = useMutation({
    mutationFn: ({ places, leader }: { places: string[]; leader: string }) =>
      shareFile(workspace, { places, leader }),
    onSuccess,
  });
  const part = useMutation({ mutationFn: (place: string) => giveItsOwnFile(workspace, place), onSuccess });
  return { join, part, error: join.error ?? part.error, busy: join.isPending || part.isPending };
}
