import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { deleteDestination } from "../../api/placeActions";
import type { Schemas } from "../../api/client";
import { plural } from "../../measure/words";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

/** The way to take a destination away for good, with what goes and what stays said before. */
export function DeleteDestination({ workspace, shelf }: { workspace: string; shelf: Schemas["Shelf"] }) {
  const queries = useQueryClient();
  const [asked, setAsked] = useState(false);
  const gone = useMutation({
    mutationFn: () => deleteDestination(workspace, shelf.id),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }),
  });
  const count = shelf.placements.length;
  if (!asked)
    return (
      <button
        type="button"
        onClick={() => setAsked(true)}
        className="ml-auto min-h-8 text-refused hover:underline"
      >
        Delete it
      </button>
    );
  return (
    <div role="alert" className="w-full">
      <p>
        {count > 0
          ? `Its ${plural(count, "place goes", "places go")} for good, with their sheets and those that were put away.`
          : "Its places that were put away go for good, with their sheets."}{" "}
        Artwork, pieces and the record of what was delivered stay.
      </p>
      <p className="mt-2 flex gap-3">
        <Button onClick={() => gone.mutate()} disabled={gone.isPending}>
          Delete {shelf.name}
        </Button>
        <Button look="bare" onClick={() => setAsked(false)}>
          Keep it
        </Button>
      </p>
      {gone.error && <Problem message={gone.error.message} />}
    </div>
  );
}
