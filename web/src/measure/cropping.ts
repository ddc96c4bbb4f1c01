import type { Box, Natural } from "./pan";

/** The largest window of a shape (width to height in px) that lies in the middle of another; all in fractions. */
export function heldTo(window: Box, ratio: number, natural: Natural): Box {
  const width = window.width * natural.width;
  const height = window.height * natural.height;
  const across = Math.min(width, height * ratio);
  const size = { width: across / natural.width, height: across / ratio / natural.height };
  return {
    x: within(window.x + (window.width - size.width) / 2, 1 - size.width),
    y: within(window.y + (window.height - size.height) / 2, 1 - size.height),
    ...size,
  };
}

/** A window moved by fractions of the picture, kept inside it. */
export function windowMoved(window: Box, dx: number, dy: number): Box {
  return {
    ...window,
    x: within(window.x + dx, 1 - window.width),
    y: within(window.y + dy, 1 - window.height),
  };
}

const LEAST = 0.01;

/**
 * A window after a handle was moved by fractions of the picture; the opposite side stays. Held to a shape, the other
 * side follows and the window stays inside the picture.
 */
export function windowResized(
  window: Box,
  handle: { x: number; y: number },
  by: { x: number; y: number },
  ratio: number | null,
  natural: Natural,
): Box {
  const right = window.x + window.width;
  const bottom = window.y + window.height;
  let left = handle.x < 0 ? clamp(window.x + by.x, 0, right - LEAST) : window.x;
  let top = handle.y < 0 ? clamp(window.y + by.y, 0, bottom - LEAST) : window.y;
  let far = handle.x > 0 ? clamp(right + by.x, window.x + LEAST, 1) : right;
  let low = handle.y > 0 ? clamp(bottom + by.y, window.y + LEAST, 1) : bottom;
  if (ratio) {
    const shape = (ratio * natural.height) / natural.width; // of the window in fractions
    let width = handle.x ? far - left : (low - top) * shape;
    const room = { x: handle.x < 0 ? right : 1 - left, y: handle.y < 0 ? bottom : 1 - top };
    width = Math.min(width, room.x, room.y * shape);
    const height = width / shape;
    if (handle.x < 0) left = right - width;
    else far = left + width;
    if (handle.y < 0) top = bottom - height;
    else low = top + height;
  }
  return { x: left, y: top, width: far - left, height: low - top };
}

/** How far a picture must be turned (degrees clockwise) so that a drawn line is level, or upright if it is nearly so. */
export function levelling(from: { x: number; y: number }, to: { x: number; y: number }): number {
  const slope = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const off = ((((slope + 45) % 90) + 90) % 90) - 45;
  return Math.round(-off * 10) / 10 || 0;
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);
const within = (value: number, most: number) => clamp(value, 0, Math.max(0, most));
