import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { recolour } from "../../api/clipActions";
import type { ArtworkOut } from "../../api/client";
import { colourPairsQuery, houseStyleQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Swatches } from "../../ui/Swatches";
import { Problem } from "../../ui/Trouble";

const SHOWN = 8;

/** The colours of a drawn animation, each with the colour that is to stand for it: a house colour is proposed. */
export function Recolouring({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const queries = useQueryClient();
  const pairs = useQuery(colourPairsQuery(workspace, artwork));
  const house = useQuery(houseStyleQuery(workspace)).data?.colours.map((one) => one.hex) ?? [];
  const [chosen, setChosen] = useState<Record<string, string | null>>({});
  const [all, setAll] = useState(false);
  const take = useMutation({
    mutationFn: (colours: Record<string, string>) => recolour(workspace, artwork.id, colours),
    onSuccess: () => {
      setChosen({});
      return queries.invalidateQueries({ queryKey: [workspace, "artwork"] });
    },
  });
  if (!pairs.data || pairs.data.length === 0) return null;
  const wanted = pairs.data.map(
    (pair) => [pair.hex, pair.hex in chosen ? chosen[pair.hex] : pair.house] as const,
  );
  const changes = Object.fromEntries(
    wanted.flatMap(([own, other]) => (other && other !== own ? [[own, other]] : [])),
  );
  return (
    <section aria-labelledby="recolouring" className="mt-6">
      <h3 id="recolouring" className="border-b border-strong pb-1 text-[14px]">
        Its colours
      </h3>
      <ul className="text-[13px]">
        {wanted.slice(0, all ? wanted.length : SHOWN).map(([own, other]) => (
          <li
            key={own}
            className="grid grid-cols-[24px_72px_minmax(0,1fr)] items-center gap-2 border-b border-hairline py-1.5"
          >
            <span aria-hidden className="size-6 border border-hairline" style={{ background: own }} />
            <span className="figure">{own}</span>
            <Swatches
              label={`Instead of ${own}`}
              colours={house}
              value={other ?? null}
              none="as it is"
              change={(colour) => setChosen({ ...chosen, [own]: colour })}
            />
          </li>
        ))}
      </ul>
      {wanted.length > SHOWN && !all && (
        <Button look="bare" onClick={() => setAll(true)}>
          Show all {wanted.length} colours
        </Button>
      )}
      {Object.keys(changes).length > 0 && (
        <Button className="mt-2" disabled={take.isPending} onClick={() => take.mutate(changes)}>
          Take these colours
        </Button>
      )}
      {take.isSuccess && (
        <p role="status" className="mt-1 text-[13px] text-soft">
          It is being drawn anew; the file as it was stays among the earlier ones.
        </p>
      )}
      {take.error && <Problem message={take.error.message} onDismiss={take.reset} />}
    </section>
  );
}
