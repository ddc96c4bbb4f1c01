import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";

import { bringBackArtwork, describeArtwork, replaceArtwork } from "../../api/actions";
import { takeLoop } from "../../api/clipActions";
import type { ArtworkOut, Schemas } from "../../api/client";
import { makeIcons } from "../../api/iconQueries";
import { beginWatermark } from "../../api/watermarkQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { Colours, FactList, Picture } from "./FactSheet";
import { PagesMenu } from "./PagesMenu";
import { PlacesMenu } from "./PlacesMenu";
import { Recolouring } from "./Recolouring";
import { Versions } from "./Versions";

interface Props {
  workspace: string;
  artwork: ArtworkOut;
  choose: (id: string) => void;
}

/** One artwork: what it really is, where it is seen, and what can be done with it next. */
export function Card({ workspace, artwork, choose }: Props) {
  const facts = artwork.facts;
  return (
    <aside
      aria-label={`What ${artwork.name} really is`}
      className="lg:sticky lg:top-4 lg:max-h-[calc(100vh-32px)] lg:self-start lg:overflow-y-auto lg:pr-1"
    >
      <Title workspace={workspace} artwork={artwork} />
      {artwork.message && (
        <div className="mt-3">
          <Problem message={artwork.message} />
        </div>
      )}
      {facts && (
        <>
          {artwork.visible && <Picture workspace={workspace} artwork={artwork} />}
          <div className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-1">
            <Ways workspace={workspace} artwork={artwork} />
            <a
              href={`/api/workspaces/${workspace}/artwork/${artwork.id}/original`}
              className="inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline"
            >
              Save the original
            </a>
          </div>
          {facts.warnings.map((warning) => (
            <p key={warning} className="mt-3 border-l-2 border-risky pl-3 text-risky">
              {warning}
            </p>
          ))}
          <Alike better artwork={artwork} choose={choose} />
          <FactList artwork={artwork} />
          {facts.format === "lottie" ? (
            <Recolouring key={artwork.key} workspace={workspace} artwork={artwork} />
          ) : (
            <Colours colours={(artwork.prepared_facts ?? facts).colours} />
          )}
          <Alike better={false} artwork={artwork} choose={choose} />
          <Versions workspace={workspace} artwork={artwork} choose={choose} />
          <About workspace={workspace} artwork={artwork} choose={choose} />
        </>
      )}
      <PutAway workspace={workspace} artwork={artwork} />
    </aside>
  );
}

const BARE = "inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline";

/** What can be done with an artwork next: a clip gives stills, a document its other pages. */
function Ways({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const own = `/w/${workspace}/artwork/${artwork.id}`;
  if (artwork.facts?.format === "lottie") return <LoopButton workspace={workspace} artwork={artwork} />;
  if (artwork.facts?.kind === "clip")
    return (
      <Link
        to={`${own}/stills`}
        className="inline-flex min-h-8 items-center rounded-[3px] border border-next bg-next px-3 py-1 text-[13px] font-semibold text-on-next hover:opacity-90"
      >
        Take stills or a loop
      </Link>
    );
  return (
    <>
      <PlacesMenu workspace={workspace} artwork={artwork} />
      <Link to={`${own}/preparation`} className={BARE}>
        Prepare it
      </Link>
      {artwork.facts?.kind === "mark" && <IconsButton workspace={workspace} artwork={artwork} />}
      {artwork.facts?.kind === "mark" && <WatermarkButton workspace={workspace} artwork={artwork} />}
      {(artwork.facts?.pages ?? 1) > 1 && <PagesMenu workspace={workspace} artwork={artwork} />}
    </>
  );
}

/** A moving picture of a drawn animation, which places that take motion can show. */
function LoopButton({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => takeLoop(workspace, artwork.id, {}),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "artwork"] }),
  });
  return (
    <>
      <Button look="next" disabled={make.isPending} onClick={() => make.mutate()}>
        Make a moving picture of it
      </Button>
      {make.isSuccess && (
        <p role="status" className="text-[13px] text-soft">
          {made(make.data.name)}
        </p>
      )}
      {make.error && <Problem message={make.error.message} onDismiss={make.reset} />}
    </>
  );
}

const made = (name: string) => `${name} is being made; it comes first in the list.`;

/** All icons of a site from this mark, in one go. */
function IconsButton({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: () => makeIcons(workspace, artwork.id),
    onSuccess: async ({ fit }) => {
      await queries.invalidateQueries({ queryKey: [workspace] });
      await navigate(`/w/${workspace}/fits/${fit}/icons`);
    },
  });
  return (
    <>
      <button type="button" className={BARE} disabled={make.isPending} onClick={() => make.mutate()}>
        Icons for a site
      </button>
      {make.error && <Problem message={make.error.message} onDismiss={make.reset} />}
    </>
  );
}

/** This mark in the corner of many pictures. */
function WatermarkButton({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: () => beginWatermark(workspace, artwork.id),
    onSuccess: ({ id }) => navigate(`/w/${workspace}/watermarks/${id}`),
  });
  return (
    <>
      <button type="button" className={BARE} disabled={begin.isPending} onClick={() => begin.mutate()}>
        Into the corner of pictures
      </button>
      {begin.error && <Problem message={begin.error.message} onDismiss={begin.reset} />}
    </>
  );
}

/** Saves what people call an artwork. */
function useDescribing(workspace: string, artwork: ArtworkOut) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: Schemas["Description"]) => describeArtwork(workspace, artwork.id, given),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "artwork"] }),
  });
}

function Title({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const describe = useDescribing(workspace, artwork);
  return (
    <input
      aria-label="Name"
      defaultValue={artwork.name}
      maxLength={255}
      onBlur={(event) =>
        event.target.value.trim() !== artwork.name && describe.mutate({ name: event.target.value })
      }
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="w-full border-b-2 border-strong bg-transparent pb-1.5 font-heading text-lg font-semibold outline-offset-4"
    />
  );
}

/** Hides an artwork that is not needed, or shows it again; nothing is deleted. */
function PutAway({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const describe = useDescribing(workspace, artwork);
  return (
    <p className="mt-3 flex items-baseline gap-3 text-[13px]">
      <Button look="bare" onClick={() => describe.mutate({ put_away: !artwork.put_away })}>
        {artwork.put_away ? "Bring it back" : "Put it away"}
      </Button>
      <span className="text-soft">
        {artwork.put_away
          ? "It is hidden here; places that show it go on."
          : artwork.used_in.length > 0 && "Places that show it go on."}
      </span>
    </p>
  );
}

const BETTER = ["larger", "a vector"];

interface AlikeProps extends Omit<Props, "workspace"> {
  better: boolean;
}

/** Other artwork that shows the same thing: a better one is told before all else, the others at the end. */
function Alike({ better, artwork, choose }: AlikeProps) {
  const others = artwork.alike.filter((other) => BETTER.includes(other.relation) === better);
  return others.slice(0, 3).map((other) => (
    <p
      key={other.id}
      className={`mt-3 border-l-2 pl-3 text-[13px] ${better ? "border-risky text-risky" : "border-hairline text-soft"}`}
    >
      {words(other.relation)}{" "}
      <button type="button" onClick={() => choose(other.id)} className="min-h-6 font-semibold underline">
        {other.name}
      </button>
    </p>
  ));
}

const words = (relation: string) =>
  ({
    larger: "You have a larger one of this:",
    smaller: "A smaller one of this is",
    "a vector": "You have a vector of this, crisp at any size:",
    "a bitmap": "A bitmap of this is",
    "as large": "The same picture, with as much detail, is",
  })[relation] ?? "The very same file came in as";

/** Where it is seen, its tags, and its newer and earlier files. */
function About({ workspace, artwork, choose }: Props) {
  return (
    <dl className="mt-4 text-[13px]">
      {artwork.parent_id && (
        <Term name="Taken from">
          <button
            type="button"
            className="min-h-6 text-measure hover:underline"
            onClick={() => choose(artwork.parent_id!)}
          >
            {artwork.name.replace(/( at \d+:.*| *, page \d+)\.\w+$/, "")}
          </button>
        </Term>
      )}
      <Term name="Seen in">{artwork.used_in.length > 0 ? artwork.used_in.join("; ") : "no place yet"}</Term>
      <Term name="Tags">
        <Tags workspace={workspace} artwork={artwork} />
      </Term>
      <Term name="Its file">
        <Files workspace={workspace} artwork={artwork} />
      </Term>
    </dl>
  );
}

function Term({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[130px_1fr] border-b border-hairline py-1.5">
      <dt className="text-soft">{name}</dt>
      <dd className="min-w-0">{children}</dd>
    </div>
  );
}

function Tags({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const describe = useDescribing(workspace, artwork);
  const own = artwork.tags.join(", ");
  return (
    <input
      aria-label="Tags"
      key={own}
      defaultValue={own}
      placeholder="logo, spring"
      onBlur={(event) =>
        event.target.value !== own && describe.mutate({ tags: event.target.value.split(",") })
      }
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="min-h-6 w-full border-b border-hairline bg-transparent placeholder:text-soft focus:border-ink"
    />
  );
}

function Files({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const input = useRef<HTMLInputElement>(null);
  const queries = useQueryClient();
  const [all, showAll] = useState(false);
  const after = () => {
    for (const what of ["artwork", "wall", "fit"])
      void queries.invalidateQueries({ queryKey: [workspace, what] });
  };
  const replace = useMutation({
    mutationFn: (file: File) => replaceArtwork(workspace, artwork.id, file),
    onSuccess: after,
  });
  const bringBack = useMutation({
    mutationFn: (number: number) => bringBackArtwork(workspace, artwork.id, number),
    onSuccess: after,
  });
  const trouble = replace.error ?? bringBack.error;
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        aria-label="A newer file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) replace.mutate(file);
          event.target.value = "";
        }}
      />
      <Button look="bare" className="min-h-6" onClick={() => input.current?.click()}>
        {replace.isPending ? "Sending it…" : "Replace by a newer one"}
      </Button>
      {artwork.earlier.length > 0 && (
        <Button look="bare" className="ml-4 min-h-6" onClick={() => showAll(!all)}>
          {`${artwork.earlier.length} earlier`}
        </Button>
      )}
      {all && (
        <ol>
          {artwork.earlier.map((entry, number) => (
            <li key={entry.at} className="flex items-baseline gap-3 border-t border-hairline py-1">
              <span className="min-w-0 flex-1 truncate">
                until {new Date(entry.at).toLocaleString("en-GB")}
              </span>
              <Button look="bare" className="min-h-6" onClick={() => bringBack.mutate(number)}>
                Bring it back
              </Button>
            </li>
          ))}
        </ol>
      )}
      {trouble && <Problem message={trouble.message} />}
    </>
  );
}
