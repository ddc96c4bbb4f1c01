import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";

import { renameArtwork } from "../../api/actions";
import type { ArtworkOut } from "../../api/client";
import { artworkQuery, artworkUrl } from "../../api/queries";
import { clock } from "../../measure/clock";
import { plural, wordsForBytes } from "../../measure/words";
import { BringIn } from "../../ui/BringIn";
import { Dimension } from "../../ui/Dimension";
import { Problem, Trouble } from "../../ui/Trouble";
import { DropZone } from "../wall/DropZone";
import { PagesMenu } from "./PagesMenu";
import { PlacesMenu } from "./PlacesMenu";

export function ArtworkScreen() {
  const { workspace = "" } = useParams();
  const artwork = useQuery(artworkQuery(workspace));
  const [search, setSearch] = useSearchParams();
  const chosen = search.get("chosen");
  const setChosen = (id: string) => setSearch({ chosen: id }, { replace: true });
  if (artwork.error && !artwork.data) return <Trouble error={artwork.error} />;
  if (!artwork.data) return <main aria-busy className="px-7 py-10" />;
  const shown = artwork.data.find((entry) => entry.id === chosen) ?? artwork.data[0];
  return (
    <DropZone
      fills={[]}
      over="bg-[var(--measure-faint)]"
      className="min-h-[calc(100vh-53px)] px-7 pt-4 pb-10"
    >
      <main>
        <h1 className="text-[26px] leading-9">
          {plural(artwork.data.length, "artwork", "artworks")}, as they came.
        </h1>
        {shown ? (
          <div className="mt-5 grid gap-10 lg:grid-cols-[minmax(0,1fr)_400px]">
            <Library workspace={workspace} all={artwork.data} shown={shown} choose={setChosen} />
            <Card key={shown.id} workspace={workspace} artwork={shown} />
          </div>
        ) : (
          <div className="py-16">
            <p className="mb-4 text-soft">Nothing here yet. Drop a logo or a photo anywhere on this page.</p>
            <BringIn fills={[]} label="Choose files" look="next" />
          </div>
        )}
      </main>
    </DropZone>
  );
}

interface LibraryProps {
  workspace: string;
  all: ArtworkOut[];
  shown: ArtworkOut;
  choose: (id: string) => void;
}

function Library({ workspace, all, shown, choose }: LibraryProps) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] content-start gap-x-6 gap-y-7">
      {all.map((entry) => (
        <li key={entry.id}>
          <button
            type="button"
            aria-pressed={entry.id === shown.id}
            onClick={() => choose(entry.id)}
            className="block w-full text-left"
          >
            <span className="flex h-28 items-end border-b-2 border-strong">
              {entry.state === "ready" ? (
                <img
                  src={artworkUrl(workspace, entry, 336)}
                  alt=""
                  className={`max-h-26 max-w-full ${backing(entry)}`}
                />
              ) : (
                <span className="mb-2 text-[12px] text-soft">
                  {entry.state === "failed" ? "not readable" : "reading…"}
                </span>
              )}
            </span>
            <span
              className={`mt-2 block truncate text-[13px] font-semibold ${entry.id === shown.id ? "text-measure" : ""} ${entry.state === "failed" ? "text-refused" : ""}`}
            >
              {entry.name}
            </span>
            <span className="figure block text-soft">{shortFacts(entry)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What lies behind a transparent artwork: a checker, or dark where it is too pale for that. */
function backing(entry: ArtworkOut): string {
  if (!entry.shown_on) return "";
  return entry.shown_on === "#ffffff" ? "checker light-checker" : "checker dark-checker";
}

function shortFacts(entry: ArtworkOut): string {
  if (!entry.facts) return entry.state === "failed" ? "see what is wrong" : `${entry.progress} %`;
  const size = `${Math.round(entry.facts.width)} × ${Math.round(entry.facts.height)}`;
  return `${entry.facts.kind} · ${entry.facts.vector ? "vector" : size}`;
}

function Card({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const facts = artwork.facts;
  return (
    <aside aria-label={`What ${artwork.name} really is`} className="lg:sticky lg:top-4 lg:self-start">
      <Title workspace={workspace} artwork={artwork} />
      {artwork.message && (
        <div className="mt-3">
          <Problem message={artwork.message} />
        </div>
      )}
      {facts && (
        <>
          <Picture workspace={workspace} artwork={artwork} />
          <FactList artwork={artwork} />
          <Colours colours={facts.colours} />
          {facts.warnings.map((warning) => (
            <p key={warning} className="mt-3 border-l-2 border-risky pl-3 text-risky">
              {warning}
            </p>
          ))}
          <div className="mt-5 flex items-center gap-5">
            <Ways workspace={workspace} artwork={artwork} />
            <a
              href={`/api/workspaces/${workspace}/artwork/${artwork.id}/original`}
              className="inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline"
            >
              Save the original
            </a>
          </div>
        </>
      )}
    </aside>
  );
}

const BARE = "inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline";

/** What can be done with an artwork next: a clip gives stills, a document its other pages. */
function Ways({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const own = `/w/${workspace}/artwork/${artwork.id}`;
  if (artwork.facts?.kind === "clip")
    return (
      <Link
        to={`${own}/stills`}
        className="inline-flex min-h-8 items-center rounded-[3px] border border-next bg-next px-3 py-1 text-[13px] font-semibold text-on-next hover:opacity-90"
      >
        Take stills
      </Link>
    );
  return (
    <>
      <PlacesMenu workspace={workspace} artwork={artwork} />
      <Link to={`${own}/preparation`} className={BARE}>
        Prepare it
      </Link>
      {(artwork.facts?.pages ?? 1) > 1 && <PagesMenu workspace={workspace} artwork={artwork} />}
    </>
  );
}

function Title({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const queries = useQueryClient();
  const rename = useMutation({
    mutationFn: (name: string) => renameArtwork(workspace, artwork.id, name),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "artwork"] }),
  });
  return (
    <input
      aria-label="Name"
      defaultValue={artwork.name}
      maxLength={255}
      onBlur={(event) => event.target.value.trim() !== artwork.name && rename.mutate(event.target.value)}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="w-full border-b-2 border-strong bg-transparent pb-1.5 font-heading text-lg font-semibold outline-offset-4"
    />
  );
}

const PICTURE_PX = 400;
const TALLEST_PX = 240;

function Picture({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
  const { width, height, trimmed } = (artwork.prepared_facts ?? artwork.facts)!;
  const scale = Math.min(PICTURE_PX / width, TALLEST_PX / height);
  const [w, h] = [width * scale, height * scale];
  const inner = trimmed.width < width - 0.5 || trimmed.height < height - 0.5;
  return (
    <div className="mt-5">
      <div className={`relative ${backing(artwork)}`} style={{ width: w, height: h }}>
        <img src={artworkUrl(workspace, artwork, w * 2)} alt={artwork.name} className="block h-full w-full" />
        {inner && (
          <span
            aria-hidden
            className="absolute border border-measure"
            style={{
              left: trimmed.x * scale,
              top: trimmed.y * scale,
              width: trimmed.width * scale,
              height: trimmed.height * scale,
            }}
          />
        )}
      </div>
      <div className="mt-1.5">
        <Dimension width={w} figure={`${figure(width)} × ${figure(height)} px`} />
      </div>
    </div>
  );
}

const figure = (value: number) => (Number.isInteger(value) ? String(value) : value.toFixed(1));

const TRANSPARENCY = {
  none: "none, it is opaque",
  edges: "clear around smooth edges",
  soft: "soft, partly see-through",
};

type Facts = NonNullable<ArtworkOut["facts"]>;

const formatWords = ({ format, jpeg_quality }: Facts) =>
  format.toUpperCase() + (jpeg_quality ? ` of quality ${jpeg_quality}` : "");

/** How much is really in a bitmap, and how large it can be shown; nothing where it was not measured. */
function crispRows({ detail_px, crisp_px, crisp_dense_px, width, height }: Facts): [string, string][] {
  if (!detail_px || !crisp_px || !crisp_dense_px) return [];
  return [
    ["Real detail", `${detail_px} of its ${figure(Math.max(width, height))} px`],
    ["Crisp up to", `${crisp_px} px long, ${Math.floor(crisp_dense_px)} px on sharp screens`],
  ];
}

function clipRows(artwork: ArtworkOut): [string, string][] {
  const { seconds, fps, width, height, has_alpha } = artwork.facts!;
  return [
    ["It is", `a clip of ${clock(seconds ?? 0)}, ${Math.round((fps ?? 0) * 100) / 100} frames a second`],
    ["File", `${formatWords(artwork.facts!)}, ${wordsForBytes(artwork.bytes)}`],
    ["Picture", `${figure(width)} × ${figure(height)} px, ${has_alpha ? "with transparency" : "opaque"}`],
  ];
}

function FactList({ artwork }: { artwork: ArtworkOut }) {
  const facts = (artwork.prepared_facts ?? artwork.facts)!;
  const rows: [string, string][] =
    facts.kind === "clip"
      ? clipRows(artwork)
      : [
          ["It is", `a ${facts.kind}, ${facts.vector ? "vector: crisp at any size" : "bitmap"}`],
          ["File", `${formatWords(facts)}, ${wordsForBytes(artwork.bytes)}`],
          ...crispRows(facts),
          ["Without margins", `${figure(facts.trimmed.width)} × ${figure(facts.trimmed.height)} px`],
          ["Transparency", TRANSPARENCY[facts.transparency]],
          ["Flat backdrop", facts.flat_backdrop ?? "none"],
        ];
  return (
    <dl className="mt-4 text-[13px]">
      {rows.map(([term, value]) => (
        <div key={term} className="grid grid-cols-[130px_1fr] border-b border-hairline py-1.5">
          <dt className="text-soft">{term}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function Colours({ colours }: { colours: readonly { hex: string; share: number }[] }) {
  return (
    <div className="mt-4">
      <div aria-hidden className="flex h-5 w-full">
        {colours.map((entry) => (
          <span key={entry.hex} style={{ background: entry.hex, flexGrow: entry.share }} />
        ))}
      </div>
      <ul aria-label="Main colours" className="figure mt-2 flex flex-wrap gap-x-4 gap-y-1 text-soft">
        {colours.map((entry) => (
          <li key={entry.hex}>
            {entry.hex} {Math.round(entry.share * 100)} %
          </li>
        ))}
      </ul>
    </div>
  );
}
