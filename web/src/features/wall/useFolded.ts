import { useState } from "react";

/** Which shelves somebody has folded; kept in this browser, since it is how they look at the wall. */
export function useFolded(workspace: string) {
  const key = `fitzle.folded.${workspace}`;
  const [folded, setFolded] = useState<string[]>(() => read(key));
  const fold = (ids: string[], on: boolean) => {
    const next = on ? [...new Set([...folded, ...ids])] : folded.filter((one) => !ids.includes(one));
    localStorage.setItem(key, JSON.stringify(next));
    setFolded(next);
  };
  return { folded: new Set(folded), fold };
}

function read(key: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}
