export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Natural {
  width: number;
  height: number;
}

/** A window of an artwork moved by (dx, dy) px of the artwork, kept inside it. */
export function movedWindow(window: Box, dx: number, dy: number, natural: Natural): Box {
  const clamp = (value: number, most: number) => Math.min(Math.max(value, 0), Math.max(0, most));
  return {
    ...window,
    x: clamp(window.x + dx, natural.width - window.width),
    y: clamp(window.y + dy, natural.height - window.height),
  };
}

/** The middle of a window in fractions of the artwork: the focus that brings the window about. */
export function focusOf(window: Box, natural: Natural): { x: number; y: number } {
  const round = (value: number) => Math.round(Math.min(Math.max(value, 0), 1) * 10000) / 10000;
  return {
    x: round((window.x + window.width / 2) / natural.width),
    y: round((window.y + window.height / 2) / natural.height),
  };
}

/** Where the whole artwork lies on the screen when `window` fills `box`; all in screen px. */
export function spread(box: Box, window: Box, natural: Natural): Box {
  const across = box.width / window.width;
  const down = box.height / window.height;
  return {
    x: box.x - window.x * across,
    y: box.y - window.y * down,
    width: natural.width * across,
    height: natural.height * down,
  };
}
