import { ChevronDown, ChevronRight } from "lucide-react";
import { useCallback, useLayoutEffect, useRef, useState } from "react";

import type { Schemas } from "../../api/client";
import { plural } from "../../measure/words";
import { DropZone } from "../../ui/DropZone";
import { FillMenu } from "./FillMenu";
import { ABOVE_PX, Proof } from "./Proof";
import { SHELF, ShelfMenu } from "./ShelfMenu";
import { useDestination } from "./useDestination";
import { useNear } from "./useNear";

/** A destination as a shelf: its placements stand on one line, drawn to one scale. */
export function ShelfRow({
  shelf,
  workspace,
  tall,
  position,
  of,
  large,
  folded,
  fold,
}: {
  shelf: Schemas["Shelf"];
  workspace: string;
  tall: number;
  /** Whether the wall is so large that shelves out of sight stay empty until one comes near. */
  large: boolean;
  /** Its place among the shelves, from 0, and how many there are. */
  position: number;
  of: number;
  folded: boolean;
  fold: (on: boolean) => void;
}) {
  const place = useRef<HTMLElement>(null);
  const near = useNear(place, position < IN_SIGHT);
  const drawn = near || !large;
  const { row, hidden, look, goOn } = useRunsOff(shelf, drawn);
  const moved = useDestination(workspace);
  const all = shelf.placements.map((entry) => entry.id);
  return (
    <DropZone
      targets={all}
      over="bg-[var(--measure-faint)]"
      className={`-mx-2 min-w-0 px-2 pb-1 ${all.length > 1 || folded ? "md:col-span-2" : ""}`}
    >
      <section
        ref={place}
        aria-labelledby={`shelf-${shelf.id}`}
        onDragOver={(event) => event.dataTransfer.types.includes(SHELF) && event.preventDefault()}
        onDrop={(event) => {
          const destination = event.dataTransfer.getData(SHELF);
          if (destination && destination !== shelf.id) moved.mutate({ destination, body: { position } });
        }}
      >
        <div className={`flex items-baseline gap-4 ${folded ? "border-b border-hairline" : ""}`}>
          <h2 id={`shelf-${shelf.id}`} className="text-[16px]">
            <ShelfMenu workspace={workspace} shelf={shelf} position={position} of={of} />
          </h2>
          {shelf.wants_checking && (
            <span className="text-[12px] font-semibold text-risky">checked more than a year ago</span>
          )}
          {folded && <span className="text-[13px] text-soft">{foldedWords(shelf)}</span>}
          {!folded && all.length > 1 && (
            <FillMenu
              workspace={workspace}
              targets={all}
              label={`fill all ${all.length}`}
              about={shelf.name}
            />
          )}
          {!folded && hidden > 0 && (
            <button
              type="button"
              className="min-h-6 text-[12px] font-semibold text-measure hover:underline"
              onClick={goOn}
            >
              {hidden} more →
            </button>
          )}
          <span className="figure ml-auto text-soft">{!folded && `scale 1:${shelf.scale}`}</span>
          <button
            type="button"
            aria-expanded={!folded}
            aria-label={folded ? `Unfold ${shelf.name}` : `Fold ${shelf.name}`}
            title={folded ? "Unfold" : "Fold"}
            onClick={() => fold(!folded)}
            className="-ml-2 inline-flex size-6 items-center justify-center self-center text-soft hover:text-ink"
          >
            {folded ? <ChevronRight aria-hidden size={15} /> : <ChevronDown aria-hidden size={15} />}
          </button>
        </div>
        <ul
          ref={row}
          onScroll={look}
          className={`${folded ? "hidden" : "flex"} gap-x-6 overflow-x-auto pb-1 ${hidden > 0 ? "runs-off" : ""}`}
        >
          {(drawn && !folded ? shelf.placements : []).map((proof) => (
            <Proof key={proof.id} proof={proof} workspace={workspace} tall={tall} near={near} />
          ))}
          <li
            aria-hidden
            className="flex min-w-0 flex-1 flex-col"
            style={drawn ? undefined : { height: tall + ABOVE_PX + WORDS_PX }}
          >
            <span className="block border-b-2 border-strong" style={{ height: tall + ABOVE_PX }} />
          </li>
        </ul>
      </section>
    </DropZone>
  );
}

function foldedWords({ placements }: Schemas["Shelf"]): string {
  const fit = placements.filter((one) => one.state === "fits" || one.state === "out of date").length;
  return `${plural(placements.length, "place", "places")}, ${fit} fit`;
}

const WORDS_PX = 92; // of what stands under a proof

/** How many proofs of a row are hidden beyond its right edge, and the way to them. */
function useRunsOff(shelf: Schemas["Shelf"], drawn: boolean) {
  const row = useRef<HTMLUListElement>(null);
  const [hidden, setHidden] = useState(0);
  const look = useCallback(() => {
    const { right } = row.current!.getBoundingClientRect();
    const proofs = [...row.current!.children].filter((child) => !child.ariaHidden);
    setHidden(proofs.filter((child) => child.getBoundingClientRect().left > right - HIDDEN_PX).length);
  }, []);
  useLayoutEffect(() => {
    look();
    const observer = new ResizeObserver(look);
    observer.observe(row.current!);
    return () => observer.disconnect();
  }, [look, shelf, drawn]);
  const goOn = () => row.current!.scrollBy({ left: row.current!.clientWidth * 0.8, behavior: "smooth" });
  return { row, hidden, look, goOn };
}

const IN_SIGHT = 6; // shelves that every screen shows, drawn at once
const HIDDEN_PX = 60; // of which less is seen than that
