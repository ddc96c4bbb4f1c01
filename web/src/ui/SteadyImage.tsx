import { useEffect, useState, type CSSProperties } from "react";

interface Props {
  src: string;
  alt: string;
  className?: string;
  style?: CSSProperties;
  onShown?: (src: string) => void;
}

const PAUSES_MS = [1200, 3000, 8000]; // before a picture that did not come is asked for again

/** An image that keeps showing the old picture until the new one is there, so that nothing flashes. */
export function SteadyImage({ src, ...more }: Props) {
  const [shown, setShown] = useState(src);
  useEffect(() => {
    if (src === shown) return;
    const next = new Image();
    next.onload = () => setShown(src);
    next.onerror = () => setShown(src); // asked for again from there on
    next.src = src;
    return () => {
      next.onload = next.onerror = null;
    };
  }, [src, shown]);
  return <PatientImage src={shown} {...more} />;
}

/** One that is asked for again where it does not come: many people may be drawn for at the moment. */
function PatientImage({ src, alt, className, style, onShown }: Props) {
  const [tries, setTries] = useState(0);
  const [failed, setFailed] = useState(false);
  const [asked, setAsked] = useState(src);
  if (asked !== src) {
    setAsked(src);
    setTries(0);
    setFailed(false);
  }
  useEffect(() => {
    if (!failed || tries >= PAUSES_MS.length) return;
    const soon = setTimeout(() => {
      setFailed(false);
      setTries(tries + 1);
    }, PAUSES_MS[tries]);
    return () => clearTimeout(soon);
  }, [failed, tries]);
  if (failed)
    return (
      <span
        role="img"
        aria-label={tries < PAUSES_MS.length ? "being drawn" : "cannot be drawn just now"}
        title={tries < PAUSES_MS.length ? undefined : "This cannot be drawn just now."}
        className={`${className} ${tries < PAUSES_MS.length ? "" : "hatched"}`}
        style={style}
      />
    );
  return (
    <img
      src={tries ? `${src}&again=${tries}` : src}
      alt={alt}
      draggable={false}
      className={className}
      style={style}
      onLoad={() => onShown?.(src)}
      onError={() => setFailed(true)}
    />
  );
}
