import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { useNavigate, useParams } from "react-router";

import { addPlace } from "../../api/actions";
import { wallQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import type { Schemas } from "../../api/client";
import { Catalogue } from "./Catalogue";
import { Heard } from "./Heard";
import { PutAway } from "./PutAway";
import { SheetView } from "./SheetView";
import { useReading } from "./useReading";
import { WordsField } from "./WordsField";

const EXAMPLES = [
  "Logo, at most 300 x 80 px, PNG with transparent background, 50 KB",
  "Square picture, at least 400 x 400 px, JPG, shown in a circle at 48 px",
  "1200 x 630 px, JPG or PNG, up to 2 MB",
];

/** Somebody says in words where it goes, reads what became of them, and puts the place on the wall. */
export function NewPlaceScreen() {
  const { workspace = "" } = useParams();
  const [words, setWords] = useState("");
  const { read, readOf, error } = useReading(workspace, words);
  const [kind, setKind] = useState<Schemas["CatalogueOut"] | null>(null);
  const sheet = words.trim() ? read?.sheet : kind?.shown;
  const choose = (entry: Schemas["CatalogueOut"]) => {
    setWords("");
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
          <PutAway workspace={workspace} />
        </section>
        <section aria-label="The sheet" className="min-w-0 xl:row-span-2">
          {sheet ? (
            <SheetView sheet={sheet} />
          ) : (
            <p className="border-t border-dashed border-strong pt-4 text-soft max-xl:hidden">
              Its sheet draws itself here while you type.
            </p>
          )}
        </section>
        {sheet && <Keep key={sheet.name} workspace={workspace} sheet={sheet} />}
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

function Examples({ choose }: { choose: (words: string) => void }) {
  return (
    <ul className="mt-4 text-[14px]">
      {EXAMPLES.map((words) => (
        <li key={words}>
          <button
            type="button"
            className="min-h-7 text-left text-measure hover:underline"
            onClick={() => choose(words)}
          >
            {words}
          </button>
        </li>
      ))}
    </ul>
  );
}

interface KeepProps {
  workspace: string;
  sheet: Schemas["SheetOut"];
}

/** Name and destination, and the one thing to do next. */
function Keep({ workspace, sheet }: KeepProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const wall = useQuery(wallQuery(workspace));
  const shelves = wall.data?.shelves.map((shelf) => shelf.name) ?? [];
  const [name, setName] = useState(sheet.name);
  const [destination, setDestination] = useState("");
  const add = useMutation({
    mutationFn: () => addPlace(workspace, { destination, name, sheet: sheet.sheet }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: [workspace, "wall"] });
      void navigate(`/w/${workspace}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };
  const field = "mt-0.5 block min-h-9 w-full border-b border-ink bg-transparent text-[15px]";
  return (
    <form
      onSubmit={submit}
      className="grid content-start items-end gap-x-6 gap-y-4 self-start border-t-2 border-strong pt-4 sm:grid-cols-[1fr_1fr_auto]"
    >
      <label className="text-[13px] text-soft">
        The place is called
        <input
          className={`${field} text-ink`}
          required
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <label className="text-[13px] text-soft">
        at
        <input
          className={`${field} text-ink`}
          required
          maxLength={120}
          list="destinations"
          placeholder="site or program"
          value={destination}
          onChange={(event) => setDestination(event.target.value)}
        />
        <datalist id="destinations">
          {shelves.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      </label>
      <Button look="next" type="submit" disabled={add.isPending}>
        Put it on the wall
      </Button>
      {add.error && (
        <div className="sm:col-span-3">
          <Problem message={add.error.message} onDismiss={add.reset} />
        </div>
      )}
    </form>
  );
}
