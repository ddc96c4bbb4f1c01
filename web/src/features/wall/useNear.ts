import { useEffect, useState, type RefObject } from "react";

const AHEAD = "600px"; // of scrolling

/** Whether something is in sight or soon will be; what was once near stays drawn. `surely` needs no look. */
export function useNear(element: RefObject<HTMLElement | null>, surely: boolean): boolean {
  const [near, setNear] = useState(surely);
  useEffect(() => {
    if (near) return;
    const observer = new IntersectionObserver(
      (entries) => entries.some((entry) => entry.isIntersecting) && setNear(true),
      { rootMargin: AHEAD },
    );
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element, near]);
  return near;
}
