import { markedProofUrl, type MarkedPicture, type Stamp, type Watermark } from "../../api/watermarkQueries";
import { SteadyImage } from "../../ui/SteadyImage";

const PROOF_PX = 960;
const CORNERS: Record<NonNullable<Stamp["corner"]>, string> = {
  "top left": "left top",
  "top right": "right top",
  "bottom left": "left bottom",
  "bottom right": "right bottom",
};

interface Props {
  workspace: string;
  watermark: Watermark;
  chosen: string | null;
}

/**
 * The picture on which the mark stands out least and the one on which it does most, or the one that was chosen; below
 * each its corner, larger.
 */
export function Proofs({ workspace, watermark, chosen }: Props) {
  const found = (id: string | null | undefined) =>
    watermark.entries.find((entry) => entry.id === id && entry.contrast !== null);
  const own = found(chosen);
  const weakest = found(watermark.weakest);
  const strongest = found(watermark.strongest);
  if (!weakest) return null;
  return (
    <section aria-label="Proofs" className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-5 sm:grid-cols-2">
      {own && own !== weakest && own !== strongest ? (
        <Proof workspace={workspace} watermark={watermark} picture={own} words="The one you chose" />
      ) : (
        strongest && (
          <Proof workspace={workspace} watermark={watermark} picture={strongest} words="Stands out most" />
        )
      )}
      <Proof
        workspace={workspace}
        watermark={watermark}
        picture={weakest}
        words={strongest ? "Stands out least" : "As it will be"}
      />
    </section>
  );
}

interface ProofProps {
  workspace: string;
  watermark: Watermark;
  picture: MarkedPicture;
  words: string;
}

function Proof({ workspace, watermark, picture, words }: ProofProps) {
  return (
    <figure className="min-w-0">
      <div className="flex h-[236px] items-end justify-start">
        <SteadyImage
          src={markedProofUrl(workspace, watermark.id, picture, PROOF_PX)}
          alt={`${picture.name} with its mark`}
          className="max-h-full max-w-full"
        />
      </div>
      <img
        src={markedProofUrl(workspace, watermark.id, picture, PROOF_PX)}
        alt=""
        className="mt-2 h-24 w-full object-none"
        style={{ objectPosition: CORNERS[watermark.stamp.corner ?? "bottom right"] }}
      />
      <figcaption className="mt-1.5 text-[13px]">
        <span className="flex flex-wrap items-baseline gap-x-3">
          <b className="font-semibold">{words}</b>
          <StandsOut picture={picture} least={watermark.least_seen} />
        </span>
        <span className="block truncate text-soft">
          {picture.name}
          {picture.clip && ", from its beginning"}
        </span>
      </figcaption>
    </figure>
  );
}

/** The contrast of the mark with what is behind it, against the least that is made out. */
export function StandsOut({ picture, least }: { picture: MarkedPicture; least: number }) {
  if (picture.contrast === null) return null;
  return (
    <span className="whitespace-nowrap">
      <span className={`figure ${picture.hardly_seen ? "text-risky" : "text-measure"}`}>
        {picture.contrast.toFixed(1)} : 1
      </span>
      {picture.hardly_seen && (
        <span className="pl-1.5 text-[12px] text-risky">hardly seen, under {least} : 1</span>
      )}
    </span>
  );
}
