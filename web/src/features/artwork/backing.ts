import type { ArtworkOut } from "../../api/client";

/** What lies behind a transparent artwork: a checker, or dark where it is too pale for that. */
export function backing(entry: Pick<ArtworkOut, "shown_on">): string {
  if (!entry.shown_on) return "";
  return entry.shown_on === "#ffffff" ? "checker light-checker" : "checker dark-checker";
}
