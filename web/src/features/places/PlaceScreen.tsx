import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { bringSheetBack, changePlace } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { placeQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem, Trouble } from "../../ui/Trouble";
import { isStale } from "../../ui/useRevisions";
import { Effects } from "./Effects";
import { Heard } from "./Heard";
import { OneFile } from "./OneFile";
import { SheetView } from "./SheetView";
import { SheetEditor } from "./sheet/SheetEditor";
import { Unsaved } from "./sheet/Unsaved";
import { useDraft } from "./sheet/useDraft";
import { useReading } from "./useReading";
import { WordsField } from "./WordsField";

/** The sheet of one place: read, named, changed, said anew, put away. */
export function PlaceScreen() {
  const { workspace = "", place: id = "" } = useParams();
  const place = useQuery(placeQuery(workspace, id));
  if (place.error && !place.data) return <Trouble error={place.error} />;
  if (!place.data) return <main aria-busy className="px-7 py-10" />;
  return <Place key={id} workspace={workspace} place={place.data} />;
}

function Place({ workspace, place }: { workspace: string; place: Schemas["PlaceOut"] }) {
  const { id, shown, destination, put_away: away } = place;
  const queries = useQueryClient();
  const navigate = useNavigate();
  const draft = useDraft(workspace, shown);
  const kept = (next: Schemas["PlaceOut"]) => {
    queries.setQueryData(placeQuery(workspace, id).queryKey, next);
    void queries.invalidateQueries({ queryKey: [workspace, "wall"] });
    void queries.invalidateQueries({ queryKey: [workspace, "shared-files"] });
    void queries.invalidateQueries({ queryKey: [workspace, "fit"] });
  };
  const change = useMutation({
    mutationFn: (wanted: Schemas["PlaceChange"]) => changePlace(workspace, id, wanted),
    onError: (error) => {
      if (isStale(error)) kept((error.body as Schemas["StaleSheetOut"]).newest);
    },
    onSuccess: (next, wanted) => {
      kept(next);
      if (wanted.put_away) void navigate(`/w/${workspace}`);
    },
  });
  const back = useMutation({
    mutationFn: (revision: number) => bringSheetBack(workspace, id, revision),
    onSuccess: (next) => kept(next),
  });
  return (
    <main className="max-w-[1400px] px-7 pt-4 pb-10">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="sr-only">{shown.name}</h1>
        <input
          key={shown.name}
          aria-label="Name of the place"
          defaultValue={shown.name}
          maxLength={120}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== shown.name) change.mutate({ name });
          }}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          className="field-sizing-content min-w-40 border-b border-transparent bg-transparent font-heading text-[26px] leading-9 font-bold hover:border-hairline focus:border-ink"
        />
        <label className="flex items-baseline gap-2 text-soft">
          at
          <input
            key={destination}
            aria-label="Destination"
            defaultValue={destination}
            maxLength={120}
            onBlur={(event) => {
              const next = event.target.value.trim();
              if (next && next !== destination) change.mutate({ destination: next });
            }}
            onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
            className="field-sizing-content min-h-7 min-w-24 border-b border-transparent bg-transparent text-ink hover:border-hairline focus:border-ink"
          />
          {away ? "put away" : ""}
        </label>
        <span className="ml-auto flex items-center gap-4">
          <Link
            to={`/w/${workspace}/places/new?like=${id}`}
            className="text-[13px] font-semibold text-measure hover:underline"
          >
            Another like this
          </Link>
          <Button look="quiet" onClick={() => change.mutate({ put_away: !away })}>
            {away ? "Bring it back" : "Put it away"}
          </Button>
        </span>
      </div>
      {change.error && <Problem message={change.error.message} onDismiss={change.reset} />}
      <div className="mt-5">
        <SheetEditor draft={draft} large />
      </div>
      {draft.changed && (
        <Unsaved
          workspace={workspace}
          place={id}
          draft={draft}
          busy={change.isPending}
          save={() =>
            change.mutate(
              { sheet: draft.sheet, name: shown.name, revision: place.revision },
              { onSuccess: draft.reset },
            )
          }
        />
      )}
      <SayAnew
        workspace={workspace}
        place={id}
        save={(sheet, done) =>
          change.mutate({ sheet, name: shown.name, revision: place.revision }, { onSuccess: done })
        }
      />
      <OneFile workspace={workspace} place={id} name={shown.name} />
      {place.earlier.length > 0 && (
        <Earlier sheets={place.earlier} bringBack={(revision) => back.mutate(revision)} />
      )}
    </main>
  );
}

/** The sheets before, each with the way back. */
function Earlier({
  sheets,
  bringBack,
}: {
  sheets: Schemas["EarlierSheetOut"][];
  bringBack: (revision: number) => void;
}) {
  return (
    <section className="mt-9 text-[13px]">
      <h2 className="border-b border-strong pb-1 text-[14px]">Earlier sheets</h2>
      <ul>
        {sheets.map((one) => (
          <li
            key={one.revision}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-1"
          >
            <span className="font-semibold">{one.name}</span>
            <span className="figure">{one.short}</span>
            <span className="text-soft">
              until{" "}
              {new Date(one.replaced_at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
              {one.replaced_by && `, ${one.replaced_by}`}
            </span>
            <button
              type="button"
              className="ml-auto min-h-6 text-measure hover:underline"
              aria-label={`Bring back the sheet ${one.short}`}
              onClick={() => bringBack(one.revision)}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Other words for the same place; the sheet of the words is looked at before it counts. */
function SayAnew({
  workspace,
  place,
  save,
}: {
  workspace: string;
  place: string;
  save: (sheet: Schemas["SheetOut"]["sheet"], done: () => void) => void;
}) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const { read, readOf } = useReading(workspace, words);
  if (!open)
    return (
      <p className="mt-8">
        <Button onClick={() => setOpen(true)}>Say it anew</Button>
      </p>
    );
  return (
    <section className="mt-8 border-t-2 border-strong pt-4">
      <h2 className="mb-2 text-[16px]">What does the upload page say now?</h2>
      <WordsField words={words} setWords={setWords} read={read} readOf={readOf} autoFocus />
      {read && <Heard read={read} />}
      {read?.sheet && (
        <>
          <div className="mt-5">
            <SheetView sheet={read.sheet} />
          </div>
          <Effects workspace={workspace} place={place} sheet={read.sheet.sheet} />
          <p className="mt-5 flex gap-4">
            <Button
              look="next"
              onClick={() => {
                save(read.sheet!.sheet, () => {
                  setWords("");
                  setOpen(false);
                });
              }}
            >
              Use this sheet
            </Button>
            <Button look="bare" onClick={() => setOpen(false)}>
              Leave it as it is
            </Button>
          </p>
        </>
      )}
    </section>
  );
}
