import { Link } from "react-router";

import type { WallProof } from "../../api/client";
import { proofUrl } from "../../api/queries";
import { Dimension } from "../../ui/Dimension";
import { Gauge } from "../../ui/Gauge";
import { State, STATES } from "../../ui/State";
import { SteadyImage } from "../../ui/SteadyImage";
import { DropZone } from "./DropZone";
import { FillMenu } from "./FillMenu";

const STAND_PX = 72; // room above the shelf's line; the tallest proof is 64 px
const LEAST_SLOT_PX = 148;

/** One placement on its shelf: the proof to scale, its dimension line, bytes and state. */
export function Proof({ proof, workspace }: { proof: WallProof; workspace: string }) {
  const slot = Math.max(LEAST_SLOT_PX, proof.drawn_width);
  return (
    <li style={{ width: slot }} className="shrink-0">
      <DropZone targets={[proof.id]} over="bg-[var(--measure-faint)] outline-2 outline-measure">
        {/* The line runs on under the gap to the next proof. */}
        <div
          style={{ height: STAND_PX, width: slot + 24 }}
          className="flex items-end border-b-2 border-strong pr-6"
        >
          {proof.fit ? <Picture proof={proof} workspace={workspace} /> : <Vacant proof={proof} />}
        </div>
        <div className="mt-1">
          <Dimension width={proof.drawn_width} />
        </div>
        <div className="mt-1.5 text-[13px] leading-[18px] font-semibold">
          {proof.fit ? (
            <Link to={`/w/${workspace}/fits/${proof.fit}`} className="hover:underline">
              {proof.name}
            </Link>
          ) : (
            proof.name
          )}
        </div>
        <div className="flex items-baseline gap-3">
          <span className="figure leading-[17px] text-measure">{proof.size}</span>
          <span className="-my-1">
            <FillMenu
              workspace={workspace}
              targets={[proof.id]}
              label={proof.fit ? "replace" : "fill"}
              about={proof.name}
              fit={proof.fit}
              quiet={Boolean(proof.fit)}
            />
          </span>
        </div>
        <Gauge bytes={proof.bytes} limit={proof.max_bytes} colour={STATES[proof.state].colour} />
        <div className="mt-1 min-h-5">
          <State state={proof.state} why={proof.why} />
        </div>
      </DropZone>
    </li>
  );
}

function Picture({ proof, workspace }: { proof: WallProof; workspace: string }) {
  const density = Math.max(2, window.devicePixelRatio);
  const address = (width: number) => proofUrl(workspace, proof.fit!, proof.key!, width);
  const shape = { borderRadius: proof.radius * Math.min(proof.drawn_width, proof.drawn_height) };
  const large = proof.twin_px;
  return (
    <Link
      to={`/w/${workspace}/fits/${proof.fit}`}
      aria-label={`${proof.name}, open`}
      className="flex items-end gap-5 outline-offset-2"
    >
      <SteadyImage
        src={address(proof.drawn_width * density)}
        alt=""
        style={{ width: proof.drawn_width, height: proof.drawn_height, background: proof.ground, ...shape }}
        className="block max-w-none"
      />
      {large && (
        <SteadyImage
          src={address(large * density)}
          alt=""
          style={{
            width: large,
            height: (large * proof.height) / proof.width,
            background: proof.ground,
            borderRadius: (proof.radius * large) / Math.max(1, proof.width / proof.height),
          }}
          className="block border-b border-dashed border-measure"
        />
      )}
    </Link>
  );
}

function Vacant({ proof }: { proof: WallProof }) {
  return (
    <span
      style={{
        width: proof.drawn_width,
        height: proof.drawn_height,
        borderRadius: proof.radius * proof.drawn_height,
      }}
      className="flex items-center justify-center border border-dashed border-soft text-[12px] text-soft"
    >
      {proof.drawn_width > 60 && proof.drawn_height > 20 ? "drop here" : ""}
    </span>
  );
}
