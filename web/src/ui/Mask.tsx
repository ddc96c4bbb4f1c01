import { useId, type CSSProperties, type ReactNode } from "react";

/** Shows of its children what the destination shows: `mask` is a path in fractions of width and height, or all. */
export function Masked({
  mask,
  style,
  className = "",
  children,
}: {
  mask: string | null;
  style?: CSSProperties;
  className?: string;
  children: ReactNode;
}) {
  const id = useId();
  const clip = mask ? { clipPath: `url("#${CSS.escape(id)}")` } : {};
  return (
    <span className={`block ${className}`} style={{ ...style, ...clip }}>
      {mask && (
        <svg aria-hidden className="absolute size-0">
          <clipPath id={id} clipPathUnits="objectBoundingBox">
            <path d={mask} />
          </clipPath>
        </svg>
      )}
      {children}
    </span>
  );
}

/** The outline of what shows as a dashed line, and what does not show under a tint. */
export function MaskLine({ mask }: { mask: string }) {
  return (
    <svg aria-hidden viewBox="0 0 1 1" preserveAspectRatio="none" className="absolute inset-0 size-full">
      <path d={`M0 0H1V1H0Z${mask}`} fillRule="evenodd" fill="var(--measure-faint)" />
      <path
        d={mask}
        fill="none"
        stroke="var(--measure)"
        strokeDasharray="4 3"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
