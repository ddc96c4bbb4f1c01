import type { ArtworkOut } from "../../api/client";
import { artworkUrl } from "../../api/queries";
import { clock } from "../../measure/clock";
import { Dimension } from "../../ui/Dimension";
import { backing } from "./backing";

const PICTURE_PX = 380;
const TALLEST_PX = 240;

/** The artwork measured: its size, and what it is without its margins. */
export function Picture({ workspace, artwork }: { workspace: string; artwork: ArtworkOut }) {
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
    ["File", `${formatWords(artwork.facts!)}, ${artwork.weight}`],
    ["Picture", `${figure(width)} × ${figure(height)} px, ${has_alpha ? "with transparency" : "opaque"}`],
  ];
}

/** What it really is, in figures. */
export function FactList({ artwork }: { artwork: ArtworkOut }) {
  const facts = (artwork.prepared_facts ?? artwork.facts)!;
  const rows: [string, string][] =
    facts.kind === "clip"
      ? clipRows(artwork)
      : [
          ["It is", `a ${facts.kind}, ${facts.vector ? "vector: crisp at any size" : "bitmap"}`],
          ["File", `${formatWords(facts)}, ${artwork.weight}`],
          ...crispRows(facts),
          ["Without margins", `${figure(facts.trimmed.width)} × ${figure(facts.trimmed.height)} px`],
          ["Transparency", TRANSPARENCY[facts.transparency]],
          ["Flat backdrop", facts.backdrop_colour ?? "none"],
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

/** Its main colours by their share. */
export function Colours({ colours }: { colours: readonly { hex: string; share: number }[] }) {
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
