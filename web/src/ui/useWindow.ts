import { useSyncExternalStore } from "react";

const onResize = (changed: () => void) => {
  window.addEventListener("resize", changed);
  return () => window.removeEventListener("resize", changed);
};

/** The height of the window in px, as it changes. */
export const useWindowHeight = () => useSyncExternalStore(onResize, () => window.innerHeight);

/** The width of the window in px, as it changes. */
export const useWindowWidth = () => useSyncExternalStore(onResize, () => window.innerWidth);
