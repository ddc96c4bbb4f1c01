import { useState, type CSSProperties } from "react";

import { motionUnwanted } from "./motionUnwanted";

/** Whether somebody looks at something: under the pointer or in focus; `handlers` go on what is looked at. */
export function useLooked() {
  const [looked, look] = useState(false);
  const handlers = {
    onPointerEnter: () => look(true),
    onPointerLeave: () => look(false),
    onFocus: () => look(true),
    onBlur: () => look(false),
  };
  return [looked && !motionUnwanted(), handlers] as const;
}

interface Props {
  still: string;
  /** Where it plays; null for what stands still. */
  moving: string | null;
  looked: boolean;
  alt: string;
  className?: string;
  style?: CSSProperties;
}

/** A picture that plays while somebody looks at it, and stands still else. */
export function MovingImage({ still, moving, looked, alt, className, style }: Props) {
  return (
    <img
      src={looked && moving ? moving : still}
      alt={alt}
      loading="lazy"
      className={className}
      style={style}
    />
  );
}
