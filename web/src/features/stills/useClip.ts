import { useCallback, useEffect, useRef, useState } from "react";

import { momentOf } from "../../api/actions";
import { frameUrl } from "../../api/queries";

const SETTLE_MS = 180; // after the last movement the exact moment is asked for

export interface Clip {
  /** The moment of the frame that is shown, in seconds. */
  at: number;
  /** Whether `at` is the exact beginning of a frame. */
  exact: boolean;
  go: (seconds: number) => void;
  step: (by: 1 | -1) => void;
  /** How it plays: by the browser, frame by frame, or not at all. */
  playing: "browser" | "frames" | null;
  play: () => void;
  pause: () => void;
  /** The browser cannot play this clip. */
  cannotPlay: () => void;
  /** Where the browser's own player is; it does not stop it. */
  follow: (seconds: number) => void;
}

/** Where somebody is in a clip. The server knows its frames; the browser only asks for them. */
export function useClip(workspace: string, artwork: string, seconds: number, frameWidth: number): Clip {
  const [at, setAt] = useState(0);
  const [exact, setExact] = useState(true);
  const [playing, setPlaying] = useState<Clip["playing"]>(null);
  const [playable, setPlayable] = useState(true);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const asked = useRef(0);

  const settle = useCallback(
    async (from: number, by: -1 | 0 | 1) => {
      const mine = ++asked.current;
      const found = await momentOf(workspace, artwork, from, by).catch(() => from);
      if (mine !== asked.current) return;
      setAt(found);
      setExact(true);
    },
    [workspace, artwork],
  );
  const go = useCallback(
    (to: number) => {
      setPlaying(null);
      setExact(false);
      const within = Math.min(Math.max(to, 0), seconds);
      setAt(within);
      asked.current += 1;
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void settle(within, 0), SETTLE_MS);
    },
    [seconds, settle],
  );
  const step = useCallback(
    (by: 1 | -1) => {
      setPlaying(null);
      clearTimeout(timer.current);
      void settle(at, by);
    },
    [at, settle],
  );
  const pause = useCallback(() => {
    setPlaying(null);
    void settle(at, 0);
  }, [at, settle]);

  useEffect(() => {
    if (playing !== "frames") return;
    let on = true;
    void (async () => {
      let now = at;
      while (on) {
        const next = await momentOf(workspace, artwork, now, 1).catch(() => now);
        if (!on || next <= now) break;
        await loaded(frameUrl(workspace, artwork, next, frameWidth));
        if (!on) break;
        now = next;
        setAt(next);
      }
      if (on) setPlaying(null);
    })();
    return () => {
      on = false;
    };
    // It goes on from where it began; each frame that it shows must not begin it anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [playing, workspace, artwork, frameWidth]);

  return {
    at,
    exact,
    go,
    step,
    playing,
    play: () => setPlaying(playable ? "browser" : "frames"),
    pause,
    cannotPlay: () => {
      setPlayable(false);
      setPlaying("frames");
    },
    follow: setAt,
  };
}

const loaded = (url: string) =>
  new Promise<void>((resolve) => {
    const image = new Image();
    image.onload = image.onerror = () => resolve();
    image.src = url;
  });
