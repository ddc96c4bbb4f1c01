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

/** The width that a page has beside its scroll bar, in px; it changes when one comes or goes. */
export const usePageWidth = () => useSyncExternalStore(onPage, () => document.documentElement.clientWidth);
