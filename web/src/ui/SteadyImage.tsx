import { useEffect, useState, type CSSProperties } from "react";

interface Props {
  src: string;
  alt: string;
  className?: string;
  style?: CSSProperties;
  onShown?: (src: string) => void;
}

/** An image that keeps showing the old picture until the new one is there, so that nothing flashes. */
export function SteadyImage({ src, alt, className, style, onShown }: Props) {
  const [shown, setShown] = useState(src);
  useEffect(() => {
    if (src === shown) return;
    const next = new Image();
    next.onload = () => setShown(src);
    next.src = src;
    return () => {
      next.onload = null;
    };
  }, [src, shown]);
  return (
    <img
      src={shown}
      alt={alt}
      draggable={false}
      className={className}
      style={style}
      onLoad={() => onShown?.(shown)}
    />
  );
}
