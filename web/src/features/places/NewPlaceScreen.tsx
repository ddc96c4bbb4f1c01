import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { placeQuery } from "../../api/queries";
import { Problem } from "../../ui/Trouble";
import type { Schemas } from "../../api/client";
import { Catalogue } from "./Catalogue";
import { Examples } from "./Examples";
import { FromFiles } from "./FromFiles";
import { Heard } from "./Heard";
import { Keep } from "./Keep";
import { PutAway } from "./PutAway";
import { SheetEditor } from "./sheet/SheetEditor";
import { WithDraft } from "./sheet/WithDraft";
import { useReading } from "./useReading";
import { WordsField } from "./WordsField";

/** Somebody says in words where it goes, reads what became of them, and puts the place on the wall. */
export function NewPlaceScreen() {
  const { workspace = "" } = useParams();
  const [words, setWords] = useState("");
  const { read, readOf, error } = useReading(workspace, words);
  const [kind, setKind] = useState<Schemas["CatalogueOut"] | null>(null);
  const [taken, setTaken] = useState<Schemas["SheetOut"] | null>(null);
  const like = useSearchParams()[0].get("like");
  const model = useQuery({ ...placeQuery(workspace, like ?? ""), enabled: like !== null }).data?.shown;
  const sheet = words.trim() ? read?.sheet : (kind?.shown ?? taken ?? model);
  const from = words.trim() ? "words" : (kind?.kind ?? taken?.name ?? "like");
  const choose = (entry: Schemas["CatalogueOut"]) => {
    setWords("");
    setTaken(null);
    setKind(entry);
    scrollTo({ top: 0, behavior: "smooth" });
  };
  return (
    <main className="px-7 pt-5 pb-10">
      <div className="grid gap-x-14 gap-y-8 xl:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] xl:grid-rows-[auto_1fr]">
        <section>
          <h1 className="text-[30px] leading-10">Where does it go?</h1>
          <p className="mt-1 mb-4 max-w-[56ch] text-soft">
            What the upload page or its help says is enough: size, shape, formats, weight, and how it is
            shown.
          </p>
          <WordsField words={words} setWords={setWords} read={read} readOf={readOf} autoFocus />
          {error && <Problem message={error.message} />}
          {read && <Heard read={read} />}
          {!read && (kind ? <About entry={kind} /> : <Examples choose={setWords} />)}
          <p className="mt-5">
            Or{" "}
            <Link to={`/w/${workspace}/places/show`} className="font-semibold text-measure hover:underline">
              show it
            </Link>
            : a screenshot of where it appears says how it is cut, covered and seen.
          </p>
          <FromFiles
            workspace={workspace}
            take={(shown) => {
              setWords("");
              setKind(null);
              setTaken(shown);
            }}
          />
          <PutAway workspace={workspace} />
        </section>
        {sheet ? (
          <WithDraft key={from} workspace={workspace} sheet={sheet}>
            {(draft) => (
              <>
                <section aria-label="The sheet" className="min-w-0 xl:row-span-2">
                  <SheetEditor draft={draft} />
                </section>
                <Keep key={draft.shown.name} workspace={workspace} sheet={draft.shown} busy={!draft.sound} />
              </>
            )}
          </WithDraft>
        ) : (
          <section aria-label="The sheet" className="min-w-0 max-xl:hidden">
            <p className="border-t border-dashed border-strong pt-4 text-soft">
              Its sheet draws itself here while you type.
            </p>
          </section>
        )}
      </div>
      <Catalogue workspace={workspace} chosen={words.trim() ? null : (kind?.kind ?? null)} choose={choose} />
    </main>
  );
}

/** What a kind of place is known for, and how far its figures can be trusted. */
function About({ entry }: { entry: Schemas["CatalogueOut"] }) {
  return (
    <div className="mt-4 text-[14px]">
      <p>
        <b>{entry.shown.name}.</b> What usually goes wrong there: {entry.goes_wrong}
      </p>
      <p className="mt-1 text-soft">
        Usual figures, checked on {entry.checked}. What your upload page says counts more: type it above.
      </p>
    </div>
  );
}
