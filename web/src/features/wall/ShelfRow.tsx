import type { Schemas } from "../../api/client";
import { DropZone } from "./DropZone";
import { FillMenu } from "./FillMenu";
import { Proof } from "./Proof";

/** A destination as a shelf: its placements stand on one line, drawn to one scale. */
export function ShelfRow({ shelf, workspace }: { shelf: Schemas["Shelf"]; workspace: string }) {
  const all = shelf.placements.map((entry) => entry.id);
  return (
    <DropZone
      targets={all}
      over="bg-[var(--measure-faint)]"
      className={`-mx-2 min-w-0 px-2 pb-1 ${all.length > 1 ? "md:col-span-2" : ""}`}
    >
      <section aria-labelledby={`shelf-${shelf.id}`}>
        <div className="flex items-baseline gap-4">
          <h2 id={`shelf-${shelf.id}`} className="text-[16px]">
            {shelf.name}
          </h2>
          {all.length > 1 && (
            <FillMenu workspace={workspace} targets={all} label={`fill all ${all.length}`} about={shelf.name} />
          )}
          <span className="figure ml-auto text-soft">scale 1:{shelf.scale}</span>
        </div>
        <ul className="flex gap-x-6 overflow-x-auto pb-1">
          {shelf.placements.map((proof) => (
            <Proof key={proof.id} proof={proof} workspace={workspace} />
          ))}
          <li aria-hidden className="flex min-w-0 flex-1 flex-col">
            <span className="block h-[72px] border-b-2 border-strong" />
          </li>
        </ul>
      </section>
    </DropZone>
  );
}
