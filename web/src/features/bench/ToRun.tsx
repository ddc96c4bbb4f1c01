import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import type { FitOut } from "../../api/client";
import { beginRun } from "../../api/runQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** Makes a series of the piece, a row for each of its episodes; goes there where it is one already. */
export function ToRun({ fit, workspace }: { fit: FitOut; workspace: string }) {
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: () => beginRun(workspace, fit.piece.id),
    onSuccess: () => void navigate(`/w/${workspace}/runs/${fit.piece.id}`),
  });
  return (
    <>
      {begin.error && <Problem message={begin.error.message} onDismiss={begin.reset} />}
      <Button disabled={begin.isPending} onClick={() => begin.mutate()}>
        {fit.rows ? `All ${fit.rows} rows` : "Make a series of it"}
      </Button>
    </>
  );
}
