import { useSyncExternalStore } from "react";

const onResize = (changed: () => void) => {
  window.addEventListener("resize", changed);
  return () => window.removeEventListener("resize", changed);
};

/** The height of the window in px, as it changes. */
export const useWindowHeight = () => useSyncExternalStore(onResize, () => window.innerHeight);

/** The width of the window in px, as it changes. */
export const useWindowWidth = () => useSyncExternalStore(onResize, () => window.innerWidth);

const onPage = (changed: () => void) => {
  const observer = new ResizeObserver(changed);
  observer.observe(document.documentElement);
  return () => observer.disconnect();
};

/** The width of the page in px without the room that is kept for its scroll bar, whether or not the bar is there. */
export const usePageWidth = () => useSyncExternalStore(onPage, () => document.documentElement.offsetWidth);
