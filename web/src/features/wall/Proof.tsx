import { useContext, useState } from "react";
import { Link } from "react-router";

import type { WallProof } from "../../api/client";
import { playingUrl } from "../../api/motionQueries";
import { proofUrl } from "../../api/queries";
import { Dimension } from "../../ui/Dimension";
import { Gauge } from "../../ui/Gauge";
import { Masked } from "../../ui/Mask";
import { motionUnwanted } from "../../ui/motionUnwanted";
import { State, STATES } from "../../ui/State";
import { SteadyImage } from "../../ui/SteadyImage";
import { DropZone } from "../../ui/DropZone";
import { FillMenu } from "./FillMenu";
import { Marks } from "./Marks";
import { PlayTogether } from "./playing";

export const ABOVE_PX = 8; // between the tallest proof and what stands above the shelf
const LEAST_SLOT_PX = 148;

interface Props {
  proof: WallProof;
  workspace: string;
  tall: number;
  /** Whether its shelf is in sight: pictures of others are not asked for. */
  near: boolean;
}

/** One placement on its shelf: the proof to scale, its dimension line, bytes and state. */
export function Proof({ proof, workspace, tall, near }: Props) {
  const slot = Math.max(LEAST_SLOT_PX, proof.drawn_width);
  return (
    <li style={{ width: slot }} className="shrink-0">
      <DropZone targets={[proof.id]} over="bg-[var(--measure-faint)] outline-2 outline-measure">
        {/* The line runs on under the gap to the next proof. */}
        <div
          style={{ height: tall + ABOVE_PX, width: slot + 24 }}
          className="flex items-end border-b-2 border-strong pr-6"
        >
          {!proof.fit && <Vacant proof={proof} />}
          {proof.fit && near && <Picture proof={proof} workspace={workspace} />}
          {proof.fit && !near && <span style={{ width: proof.drawn_width, height: proof.drawn_height }} />}
        </div>
        <div className="mt-1">
          <Dimension width={proof.drawn_width} />
        </div>
        <div className="mt-1.5 text-[13px] leading-[18px] font-semibold">
          <Link
            to={`/w/${workspace}/${proof.fit ? `fits/${proof.fit}` : `places/${proof.id}`}`}
            className="hover:underline"
          >
            {proof.name}
          </Link>
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
        <Gauge proof={proof} colour={STATES[proof.state].colour} />
        <div className="mt-1 min-h-5">
          <State state={proof.state} why={proof.why} />
        </div>
        <Marks proof={proof} workspace={workspace} />
      </DropZone>
    </li>
  );
}

function Picture({ proof, workspace }: { proof: WallProof; workspace: string }) {
  const large = proof.twin_px;
  const [looked, look] = useState(false);
  const together = useContext(PlayTogether);
  const playing = proof.seconds != null && (together || (looked && !motionUnwanted()));
  return (
    <Link
      onPointerEnter={() => look(true)}
      onPointerLeave={() => look(false)}
      onFocus={() => look(true)}
      onBlur={() => look(false)}
      to={`/w/${workspace}/fits/${proof.fit}`}
      aria-label={`${proof.name}, open`}
      className="flex items-end gap-5 outline-offset-2"
    >
      <Drawn
        proof={proof}
        workspace={workspace}
        width={proof.drawn_width}
        height={proof.drawn_height}
        playing={playing}
      />
      {large && (
        <span className="border-b border-dashed border-measure">
          <Drawn
            proof={proof}
            workspace={workspace}
            width={large}
            height={(large * proof.height) / proof.width}
          />
        </span>
      )}
    </Link>
  );
}

interface DrawnProps {
  proof: WallProof;
  workspace: string;
  width: number;
  height: number;
  playing?: boolean;
}

function Drawn({ proof, workspace, width, height, playing }: DrawnProps) {
  const density = Math.max(2, window.devicePixelRatio);
  const still = proofUrl(workspace, proof.fit!, proof.key!, width * density);
  return (
    <Masked mask={proof.mask} style={{ width, height, background: proof.ground }}>
      <SteadyImage
        src={playing ? playingUrl(workspace, proof.fit!, proof.file_key, width * density) : still}
        alt=""
        className="block h-full w-full max-w-none"
      />
    </Masked>
  );
}

function Vacant({ proof }: { proof: WallProof }) {
  const { drawn_width: width, drawn_height: height } = proof;
  return (
    <span
      className="relative flex items-center justify-center text-[12px] text-soft"
      style={{ width, height }}
    >
      <svg aria-hidden viewBox="0 0 1 1" preserveAspectRatio="none" className="absolute inset-0 size-full">
        <path
          d={proof.mask ?? "M0 0H1V1H0Z"}
          fill="none"
          stroke="var(--ink-soft)"
          strokeDasharray="3 2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {width > 60 && height > 20 ? "drop here" : ""}
    </span>
  );
}
