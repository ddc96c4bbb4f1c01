import { useLayoutEffect, useRef, useState } from "react";

import type { FitOut } from "../../api/client";
import { proofUrl } from "../../api/queries";
import { Dimension } from "../../ui/Dimension";
import { SteadyImage } from "../../ui/SteadyImage";
import { Clearance } from "./Clearance";
import { FocusPan } from "./FocusPan";
import { Ruler } from "./Ruler";
import type { Bench } from "./useBench";

const TALLEST_PX = 380;
const RULER_PX = 14;
const MOST_MAGNIFIED = 16;

export function Stage({ bench, fit, workspace }: { bench: Bench; fit: FitOut; workspace: string }) {
  const room = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(600);
  const [asSeen, setAsSeen] = useState(false);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width - RULER_PX));
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);
  const scale = Math.min(width / fit.width, TALLEST_PX / fit.height, MOST_MAGNIFIED);
  const [w, h] = [fit.width * scale, fit.height * scale];
  const drawn = scale >= 2 ? fit.width : Math.min(w * Math.max(2, devicePixelRatio), Math.max(fit.width, w));
  return (
    <section aria-label="Proof" ref={room}>
      <div className="flex items-baseline justify-between gap-4 pb-1.5" style={{ paddingLeft: RULER_PX }}>
        <span className="figure text-soft">
          {fit.sheet.destination} · {fit.sheet.name}
        </span>
        <ViewSwitch asSeen={asSeen} setAsSeen={setAsSeen} scale={scale} />
      </div>
      <div style={{ paddingLeft: RULER_PX }}>
        <Ruler length={fit.width} scale={scale} side="top" />
      </div>
      <div className="flex">
        <Ruler length={fit.height} scale={scale} side="left" />
        <div
          className={`relative shrink-0 overflow-hidden outline outline-hairline ${fit.ground ? "" : asSeen ? "" : "checker"}`}
          style={{
            width: w,
            height: h,
            background: asSeen ? fit.sheet.grounds[0] : undefined,
            borderRadius: asSeen ? radius(fit, w, h) : 0,
          }}
        >
          <SteadyImage
            src={proofUrl(workspace, fit.id, fit.key, drawn)}
            alt={`Proof of ${fit.sheet.name}`}
            className="block h-full w-full"
            style={{ imageRendering: scale >= 2 ? "pixelated" : "auto" }}
          />
          <FocusPan bench={bench} fit={fit} scale={scale} workspace={workspace} />
          {asSeen ? <AsSeen fit={fit} /> : <Marks fit={fit} scale={scale} />}
        </div>
      </div>
      <div style={{ paddingLeft: RULER_PX }} className="mt-1.5">
        <Dimension width={w} figure={`${fit.width} px`} />
      </div>
    </section>
  );
}

interface SwitchProps {
  asSeen: boolean;
  setAsSeen: (value: boolean) => void;
  scale: number;
}

function ViewSwitch({ asSeen, setAsSeen, scale }: SwitchProps) {
  const look = (on: boolean) => `min-h-6 ${on ? "font-semibold text-ink" : "text-soft hover:text-ink"}`;
  const words =
    scale >= 1 ? `magnified ${Math.round(scale * 10) / 10} ×` : `drawn at ${Math.round(scale * 100)} %`;
  return (
    <div className="flex items-baseline gap-4 text-[13px]">
      <span className="figure text-soft">{words}</span>
      <button type="button" aria-pressed={!asSeen} className={look(!asSeen)} onClick={() => setAsSeen(false)}>
        as delivered
      </button>
      <button type="button" aria-pressed={asSeen} className={look(asSeen)} onClick={() => setAsSeen(true)}>
        as shown there
      </button>
    </div>
  );
}

/** What is drawn on a proof to work by: covered zones hatched, clearance, numbered findings. */
function Marks({ fit, scale }: { fit: FitOut; scale: number }) {
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0">
      <Covered fit={fit} className="hatched outline-dashed outline-1 outline-white/80" />
      <Cut fit={fit} />
      {fit.parts
        .filter((part) => part.mode === "whole")
        .map((part) => (
          <Clearance key={part.part} fit={fit} part={part} scale={scale} />
        ))}
      {fit.findings.map((finding, index) =>
        finding.where && finding.severity !== "note" ? (
          <span
            key={finding.rule}
            className={`absolute flex size-5 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full text-[11px] font-bold text-paper ${finding.severity === "refused" ? "bg-refused" : "bg-risky"}`}
            style={{
              left: `clamp(12px, ${(finding.where.x + finding.where.width / 2) * 100}%, 100% - 12px)`,
              top: `clamp(12px, ${(finding.where.y + finding.where.height) * 100}%, 100% - 12px)`,
            }}
          >
            {index + 1}
          </span>
        ) : null,
      )}
    </div>
  );
}

/** What the destination does to the picture: its veil, and what it draws over it. */
function AsSeen({ fit }: { fit: FitOut }) {
  const { veil } = fit.sheet;
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0">
      {veil && (
        <span className="absolute inset-0" style={{ background: veil.colour, opacity: veil.opacity }} />
      )}
      <Covered fit={fit} className="bg-black/65" />
    </div>
  );
}

function Covered({ fit, className }: { fit: FitOut; className: string }) {
  return fit.sheet.covered.map((zone) => (
    <span
      key={zone.label}
      className={`absolute flex items-center justify-center overflow-hidden text-[11px] font-semibold text-white [text-shadow:0_0_3px_#000] ${className}`}
      style={{
        left: `${zone.x * 100}%`,
        top: `${zone.y * 100}%`,
        width: `${zone.width * 100}%`,
        height: `${zone.height * 100}%`,
      }}
    >
      {zone.label}
    </span>
  ));
}

function Cut({ fit }: { fit: FitOut }) {
  if (!fit.sheet.cut) return null;
  const circle = fit.sheet.cut.shape === "circle";
  const share = circle ? "50%" : `${(fit.sheet.cut as { radius: number }).radius * 100}%`;
  return (
    <span
      className="absolute inset-0 border border-dashed border-measure"
      style={{ borderRadius: share, boxShadow: "0 0 0 999px var(--measure-faint)" }}
    />
  );
}

function radius(fit: FitOut, w: number, h: number): number {
  const { cut } = fit.sheet;
  if (!cut) return 0;
  return cut.shape === "circle" ? Math.max(w, h) : cut.radius * Math.min(w, h);
}
