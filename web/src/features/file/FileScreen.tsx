import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";

import {
  candidatesQuery,
  lookQuery,
  originalOf,
  pictureOf,
  type Candidate,
  type Candidates,
} from "../../api/candidateQueries";
import { plural } from "../../measure/words";
import { Choice } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { useBench, type Bench } from "../bench/useBench";
import { Compare, type Zoom } from "./Compare";
import { Fixing } from "./Fixing";
import { Tried } from "./Tried";

const ZOOMS: [Zoom, string][] = [
  ["whole", "Whole"],
  ["1", "1 ×"],
  ["2", "2 ×"],
  ["4", "4 ×"],
];

/** The file of a fit beside what was drawn, and everything that was tried on the way to it. */
export function FileScreen() {
  const { workspace = "", fit = "" } = useParams();
  const bench = useBench(workspace, fit);
  const state = bench.fit ? `${bench.fit.key}/${bench.fit.measuring}` : "";
  const found = useQuery({ ...candidatesQuery(workspace, fit, state), enabled: state !== "" });
  const error = bench.error ?? found.error;
  if (error && !(bench.fit && found.data)) return <Trouble error={error} />;
  if (!bench.fit || !found.data) return <main aria-busy className="px-7 py-10" />;
  return <File bench={bench} data={found.data} />;
}

function File({ bench, data }: { bench: Bench; data: Candidates }) {
  const fit = bench.fit!;
  const [picked, setPicked] = useState<Candidate | null>(null);
  const shown = picked ?? data.candidates[0];
  return (
    <main className="px-7 pt-3 pb-10">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <div>
          <h1 className="text-[22px] leading-8">{fit.piece.document.subject}</h1>
          <p className="text-[13px] text-soft">{sentence(data, fit.sheet.name)}</p>
        </div>
        <Link
          to={`/w/${bench.workspace}/fits/${fit.id}`}
          className="ml-auto inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
        >
          At the bench
        </Link>
      </div>
      {shown ? (
        <div className="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_400px]">
          <Beside
            workspace={bench.workspace}
            fit={fit.id}
            data={data}
            shown={shown}
            ground={fit.sheet.grounds[0] ?? "#ffffff"}
          />
          <div className="grid content-start gap-y-7">
            <Tried data={data} shown={shown} show={setPicked} />
            <Fixing
              key={JSON.stringify(data.wish)}
              workspace={bench.workspace}
              fit={fit.id}
              data={data}
              show={setPicked}
            />
          </div>
        </div>
      ) : (
        <p className="mt-6 text-[14px]">
          Its file is being made. What is tried stands here as soon as it is there.
        </p>
      )}
    </main>
  );
}

function sentence(data: Candidates, place: string): string {
  const tried = plural(data.candidates.length, "file was", "files were");
  const limit = data.limit_weight ? `, the best under ${data.limit_weight} is delivered` : "";
  return data.candidates.length ? `${place}: ${tried} tried${limit}` : `${place}: the file is being made`;
}

interface BesideProps {
  workspace: string;
  fit: string;
  data: Candidates;
  shown: Candidate;
  ground: string;
}

/** One candidate beside the original, enlarged where it lost most. */
function Beside({ workspace, fit, data, shown, ground }: BesideProps) {
  const [zoom, setZoom] = useState<Zoom>("whole");
  const [veil, setVeil] = useState<"off" | "on">("off");
  const looked = useQuery(lookQuery(workspace, fit, data.key, shown)).data;
  const middle = looked
    ? { x: looked.x + looked.width / 2, y: looked.y + looked.height / 2 }
    : { x: 0.5, y: 0.5 };
  const score = looked?.score ?? shown.score;
  return (
    <section aria-label="Before and after" className="min-w-0">
      <div className="mb-3 flex flex-wrap gap-x-8 border-b-2 border-strong pb-2">
        <Choice label="Enlarged" options={ZOOMS} value={zoom} choose={setZoom} />
        {shown.format !== "svg" && (
          <Choice
            label="Losses"
            options={[
              ["off", "as they are"],
              ["on", "marked in red"],
            ]}
            value={veil}
            choose={setVeil}
          />
        )}
      </div>
      <Compare
        original={originalOf(workspace, fit, data.key)}
        file={pictureOf(workspace, fit, data.key, shown, "picture")}
        errors={
          veil === "on" && shown.format !== "svg"
            ? pictureOf(workspace, fit, data.key, shown, "errors")
            : undefined
        }
        width={data.width}
        height={data.height}
        ground={ground}
        zoom={zoom}
        middle={middle}
      />
      <p className="mt-2 text-[13px]">
        <span className="font-semibold">{shown.label}</span>, {shown.words}:{" "}
        <span className="figure">{shown.weight}</span>
        {score !== null && score !== undefined && <>, {looks(score)}</>}
        {zoom !== "whole" && <span className="text-soft"> · where most was lost</span>}
      </p>
    </section>
  );
}

const looks = (score: number) => (score >= 99.95 ? "nothing lost" : `looks ${Math.round(score)} of 100`);
