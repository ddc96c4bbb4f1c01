import type { FitOut } from "../../../api/client";
import { gapsAround } from "../../../measure/neighbours";
import { MaskLine } from "../../../ui/Mask";
import { Gaps } from "./Gaps";

/** What is drawn on a proof to work by: covered zones hatched, clearance, numbered findings. */
export function Marks({ fit, scale, bare }: { fit: FitOut; scale: number; bare: boolean }) {
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0 overflow-hidden">
      <Covered fit={fit} className="hatched outline-dashed outline-1 outline-white/80" />
      {fit.mask && <MaskLine mask={fit.mask} />}
      {!bare && <Clearances fit={fit} scale={scale} />}
      {fit.findings.map((finding, index) =>
        finding.where && finding.severity !== "note" && !finding.muted ? (
          <span
            key={`${finding.rule}${finding.part}`}
            className={`absolute flex size-5 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full text-[11px] font-bold text-paper ${finding.severity === "refused" ? "bg-refused" : "bg-risky"}`}
            style={{
              left: `clamp(12px, ${finding.where.x * 100}%, 100% - 12px)`,
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

/** The free space around a mark that stands alone. */
function Clearances({ fit, scale }: { fit: FitOut; scale: number }) {
  return fit.parts
    .filter((part) => part.artwork?.mode === "whole" && part.role === "mark")
    .map((part) => (
      <div key={part.part}>
        <span
          className="absolute border border-measure/70"
          style={{
            left: part.box.x * scale,
            top: part.box.y * scale,
            width: part.box.width * scale,
            height: part.box.height * scale,
          }}
        />
        <Gaps gaps={gapsAround(part.box, [], fit.width, fit.height)} scale={scale} />
      </div>
    ));
}

/** What the destination does to the picture: its veil, and what it draws over it. */
export function AsSeen({ fit }: { fit: FitOut }) {
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
