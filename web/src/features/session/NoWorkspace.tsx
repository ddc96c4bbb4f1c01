import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { beginWorkspace } from "../../api/actions";
import { BringInWorkspace } from "../../ui/BringInWorkspace";
import { DeletedWorkspaces } from "../../ui/DeletedWorkspaces";
import { Entrance } from "./Entrance";
import { EntranceField } from "./EntranceField";
import { Next, Way, Ways } from "./Said";

/** Whoever left their last workspace begins another one. */
export function NoWorkspace() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const begin = useMutation({
    mutationFn: () => beginWorkspace(name),
    onSuccess: async ({ slug }) => {
      await queries.invalidateQueries({ queryKey: ["session"] });
      await navigate(`/w/${slug}/begin`);
    },
  });
  return (
    <Entrance title="You have no workspace just now" submit={() => begin.mutate()}>
      <EntranceField label="Your business" required maxLength={120} autoFocus value={name} write={setName} />
      <Next words="Begin a workspace" busy={begin.isPending} error={begin.error} />
      <DeletedWorkspaces />
      <Ways>
        <BringInWorkspace />
        <Way to="/account">Your account</Way>
      </Ways>
    </Entrance>
  );
}
