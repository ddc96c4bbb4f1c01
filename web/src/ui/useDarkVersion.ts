import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { makeDarkVersion } from "../api/actions";

/** Makes a version of a mark for dark grounds, and goes to its preparation, where it is accepted or changed. */
export function useDarkVersion(workspace: string, artwork: string) {
  const queries = useQueryClient();
  const go = useNavigate();
  return useMutation({
    mutationFn: () => makeDarkVersion(workspace, artwork),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: [workspace] });
      await go(`/w/${workspace}/artwork/${made.id}/preparation`);
    },
  });
}
