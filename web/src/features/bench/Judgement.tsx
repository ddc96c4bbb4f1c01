import { Ban, Check, TriangleAlert } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";

import { endSearch, simplifyMark } from "../../api/actions";
import { Button } from "../../ui/Button";

import type { Finding, FitOut } from "../../api/client";
import { plural } from "../../measure/words";
import { Problem } from "../../ui/Trouble";
import { useDarkVersion } from "../../ui/useDarkVersion";
import { Muting } from "./Muting";
import { Repairs } from "./Repairs";
import { RulePage } from "./RulePage";
import type { Bench } from "./useBench";

interface Props {
  bench: Bench;
  fit: FitOut;
}

/** Asked beside measured, and what there is to look at. */
export function Judgement({ bench, fit }: Props) {
  return (
    <div className="grid gap-x-9 gap-y-7 md:grid-cols-2 xl:grid-cols-1">
      <div>
        <Demands bench={bench} fit={fit} />
        {fit.file && (
          <Link
            to={`/w/${bench.workspace}/fits/${fit.id}/file`}
            className="mt-1.5 inline-flex min-h-7 items-center text-[13px] font-semibold text-measure hover:underline"
          >
            Beside the original, and what else was tried
          </Link>
        )}
      </div>
      <Findings bench={bench} fit={fit} />
    </div>
  );
}

const SYMBOLS = {
  fits: { symbol: Check, colour: "text-fits", words: "fits" },
  risky: { symbol: TriangleAlert, colour: "text-risky", words: "risky" },
  refused: { symbol: Ban, colour: "text-refused", words: "would be refused" },
};

/** A search for a moving file takes up to a minute: who has waited enough takes what was found so far. */
function Enough({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const end = useMutation({ mutationFn: () => endSearch(bench.workspace, fit.id) });
  if (end.isSuccess) return <span>The best so far is taken.</span>;
  return (
    <Button look="bare" disabled={end.isPending} onClick={() => end.mutate()}>
      Take the best so far
    </Button>
  );
}

function Demands({ bench, fit }: { bench: Bench; fit: FitOut }) {
  return (
    <table className="w-full table-fixed text-left text-[13px]">
      {fit.making && (
        <caption role="status" className="caption-bottom pt-2 text-left text-soft">
          {fit.making}… <Enough bench={bench} fit={fit} />
        </caption>
      )}
      <thead>
        <tr className="border-b-2 border-strong font-heading">
          <th className="pb-1.5 font-semibold">Asked</th>
          <th className="pb-1.5 font-semibold">Measured</th>
        </tr>
      </thead>
      <tbody>
        {fit.demands.map((demand) => {
          const open = demand.measured === "—";
          const { symbol: Symbol, colour, words } = SYMBOLS[demand.state];
          return (
            <tr key={demand.rule} className="border-b border-hairline align-baseline">
              <td className="py-1.5 pr-2">{demand.asked}</td>
              <td className={`py-1.5 ${demand.state === "fits" ? "" : `font-semibold ${colour}`}`}>
                {open ? (
                  <span className="text-soft">{fit.measuring ? "measuring…" : "no file"}</span>
                ) : (
                  <span className="flex items-baseline gap-1.5">
                    <Symbol
                      aria-label={words}
                      size={13}
                      strokeWidth={2.6}
                      className={`shrink-0 self-center ${colour}`}
                    />
                    {measured(demand.rule, demand.measured, fit)}
                  </span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function measured(rule: string, words: string, fit: FitOut): string {
  if (rule === "bytes" && fit.file) return `${words}, ${lossWords(fit.file.score)}`;
  if (rule === "format" && fit.file) return `${words}, ${fit.file.settings}`;
  return words;
}

const lossWords = (score: number) => (score >= 99.95 ? "nothing lost" : `looks ${Math.round(score)} of 100`);

/** What there is to look at, each with what one click can do about it. */
export function Findings({ bench, fit }: { bench: Bench; fit: FitOut }) {
  const serious = fit.findings.filter((finding) => finding.severity !== "note" && !finding.muted).length;
  const heading = fit.failure
    ? "Its file could not be made"
    : serious === 0
      ? "Nothing to mend"
      : `${plural(serious, "thing", "things")} to look at`;
  return (
    <section aria-labelledby="findings">
      <h2 id="findings" className="border-b-2 border-strong pb-1.5 text-[14px]">
        {heading}
      </h2>
      {fit.failure && <p className="pt-3 text-[13px] text-refused">{fit.failure}</p>}
      <ol>
        {fit.findings.map((finding, index) => (
          <FindingRow
            key={`${finding.rule}-${index}`}
            bench={bench}
            fit={fit}
            finding={finding}
            number={index + 1}
          />
        ))}
      </ol>
    </section>
  );
}

const BARE = "mt-1.5 flex min-h-7 items-center font-semibold text-measure hover:underline";

interface OfferProps {
  bench: Bench;
  offer: NonNullable<Finding["offer"]>;
  part: Finding["part"];
}

/** Makes a version of the mark, or leads to its preparation, where the step is added and can be changed or undone. */
function OfferLink({ bench, offer, part }: OfferProps) {
  const make = useDarkVersion(bench.workspace, offer.artwork);
  const simplify = useMutation({
    mutationFn: () => simplifyMark(bench.workspace, bench.fit!.id, part ?? ""),
  });
  if (offer.step === "simpler")
    return (
      <>
        <Button
          className="mt-2"
          disabled={simplify.isPending || simplify.isSuccess}
          onClick={() => simplify.mutate()}
        >
          {simplify.isPending || simplify.isSuccess ? "Making it…" : offer.label}
        </Button>
        {simplify.error && <Problem message={simplify.error.message} />}
      </>
    );
  if (part && (offer.step === "cut out" || offer.step === "clean edge"))
    return (
      <Button
        className="mt-2"
        disabled={bench.outbox.state !== "saved"}
        onClick={() => bench.prepare(offer.step, part)}
      >
        {offer.label}
      </Button>
    );
  if (offer.step === "dark-version")
    return (
      <>
        <button type="button" className={BARE} disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? "Making it…" : offer.label}
        </button>
        {make.error && <Problem message={make.error.message} />}
      </>
    );
  return (
    <Link
      to={`/w/${bench.workspace}/artwork/${offer.artwork}/preparation?offer=${encodeURIComponent(offer.step)}`}
      className={BARE}
    >
      {offer.label}
    </Link>
  );
}

const TONES = {
  refused: "bg-refused text-paper",
  risky: "bg-risky text-paper",
  note: "border border-soft text-soft",
};

interface FindingProps extends Props {
  finding: Finding;
  number: number;
}

function FindingRow({ bench, fit, finding, number }: FindingProps) {
  return (
    <li className="flex gap-2.5 pt-3">
      <span
        className={`mt-px flex size-[18px] shrink-0 items-center justify-center rounded-full text-[11px] font-bold ${TONES[finding.muted ? "note" : finding.severity]}`}
      >
        {number}
        <span className="sr-only"> {finding.severity}: </span>
      </span>
      <div className={`min-w-0 text-[13px] ${finding.muted ? "text-soft" : ""}`}>
        <p>{finding.message}</p>
        {!finding.muted && <Repairs bench={bench} finding={finding} />}
        {finding.offer && !finding.muted && (
          <OfferLink bench={bench} offer={finding.offer} part={finding.part} />
        )}
        <Muting bench={bench} fit={fit} finding={finding} />
        <RulePage rule={finding.rule} />
      </div>
    </li>
  );
}
