import { useQuery } from "@tanstack/react-query";

import type { ArtworkOut, Schemas } from "../../api/client";
import { artworkUrl, houseProposalQuery, isChoosable } from "../../api/queries";
import { plural } from "../../measure/words";
import { BringIn } from "../../ui/BringIn";
import { DropZone } from "../../ui/DropZone";
import { Problem } from "../../ui/Trouble";

interface Props {
  workspace: string;
  logo: ArtworkOut | undefined;
  takes: boolean;
  setTakes: (takes: boolean) => void;
}

/** Takes a logo, and shows what it proposes for the house style. */
export function FirstLogo({ workspace, logo, takes, setTakes }: Props) {
  return (
    <section aria-labelledby="logo">
      <h1 id="logo" className="text-[26px] leading-9">
        {logo ? logo.name : "Your logo, if you have one"}
      </h1>
      {!logo && (
        <DropZone
          targets={[]}
          className="mt-4 grid min-h-64 place-content-center gap-3 border border-dashed border-strong p-6 text-center"
          over="border-measure"
        >
          <p className="font-heading text-[17px] font-bold">Drop it here</p>
          <p className="max-w-[36ch] text-soft">
            SVG or PDF is best, a large PNG or a photo of it will do. Your colours come out of it.
          </p>
          <span>
            <BringIn targets={[]} label="Choose a file" />
          </span>
        </DropZone>
      )}
      {logo?.state === "failed" && <Problem message={logo.message} />}
      {logo && logo.state !== "failed" && !isChoosable(logo) && (
        <p role="status" className="mt-4 text-soft">
          Looking at it…
        </p>
      )}
      {logo && isChoosable(logo) && (
        <Proposal workspace={workspace} logo={logo} takes={takes} setTakes={setTakes} />
      )}
    </section>
  );
}

function Proposal({ workspace, logo, takes, setTakes }: Props & { logo: ArtworkOut }) {
  const query = useQuery(houseProposalQuery(workspace, logo.id));
  if (query.error) return <Problem message={query.error.message} />;
  const proposal = query.data;
  if (!proposal) return null;
  return (
    <>
      <div className="mt-4 grid grid-cols-2">
        <OnGround
          workspace={workspace}
          logo={logo}
          ground={proposal.light}
          words="on light"
          ratio={proposal.showing.on_light}
          shows={proposal.showing.shows_on_light}
        />
        <OnGround
          workspace={workspace}
          logo={logo}
          ground={proposal.dark}
          words="on dark"
          ratio={proposal.showing.on_dark}
          shows={proposal.showing.shows_on_dark}
        />
      </div>
      <div className={takes ? "" : "opacity-45"}>
        <Colours proposal={proposal} />
        <p className="mt-4 border-t border-hairline pt-2 text-[14px]">
          {plural(proposal.readable, "pair of them reads", "pairs of them read")} at any size.{" "}
          {proposal.wants_dark_version && "A version for dark grounds is made of it as well. "}
          Files are called like <span className="figure">{proposal.example}</span>.
        </p>
      </div>
      <label className="mt-3 flex min-h-8 items-center gap-2.5 text-[14px]">
        <input
          type="checkbox"
          checked={takes}
          onChange={(event) => setTakes(event.target.checked)}
          className="size-4 accent-[var(--measure)]"
        />
        Make this the house style. It can be changed there at any time.
      </label>
    </>
  );
}

function Colours({ proposal }: { proposal: Schemas["HouseProposalOut"] }) {
  return (
    <ul className="mt-5 grid grid-cols-[repeat(auto-fill,minmax(104px,1fr))] gap-x-4 gap-y-3 text-[13px]">
      {proposal.colours.map((colour) => (
        <li key={colour.hex}>
          <span className="block h-12 border border-hairline" style={{ background: colour.hex }} />
          <span className="mt-1 block truncate font-semibold">{colour.name}</span>
          <span className="figure text-soft">{colour.hex}</span>
        </li>
      ))}
    </ul>
  );
}

interface OnGroundProps {
  workspace: string;
  logo: ArtworkOut;
  ground: string;
  words: string;
  ratio: number;
  shows: boolean;
}

function OnGround({ workspace, logo, ground, words, ratio, shows }: OnGroundProps) {
  return (
    <div>
      <span className="flex h-40 items-center justify-center p-5" style={{ background: ground }}>
        <img
          src={artworkUrl(workspace, logo, 400)}
          alt={`${logo.name} ${words}`}
          className="max-h-full max-w-full object-contain"
        />
      </span>
      <span className={`figure ${shows ? "text-fits" : "text-risky"}`}>
        {ratio.toFixed(1)} {shows ? "shows" : "too faint"} {words}
      </span>
    </div>
  );
}
