import type { Room } from "../../api/queries";
import { usePageWidth, useWindowHeight, useWindowWidth } from "../../ui/useWindow";

const MARGINS_PX = 56;
const GAP_PX = 40;
const [TWO_COLUMNS_PX, FOUR_COLUMNS_PX] = [768, 1280]; // md and xl of the layout
const LEAST_PX = 240;
const STEP_PX = 4; // the wall is asked for anew only when the room has changed by that much
const USUAL = { height: 800, tall: 64 };
const MOST_TALL_PX = 160;

/** The room of a shelf. As the wall is laid out, one with several places has half of a wide screen, else all of it. */
export function useRoom(): Room {
  return roomOf(useWindowWidth(), useWindowHeight(), usePageWidth());
}

/** As `useRoom`, now: what the wall is asked for before anything is drawn. */
export const roomNow = () =>
  roomOf(window.innerWidth, window.innerHeight, document.documentElement.offsetWidth);

function roomOf(window: number, height: number, page: number): Room {
  const width = page - MARGINS_PX;
  const room = window >= FOUR_COLUMNS_PX ? half(width) : width;
  const alone = window >= TWO_COLUMNS_PX ? half(room) : room;
  const tall = USUAL.tall + (height - USUAL.height) / 4;
  return {
    room: stepped(room),
    alone: stepped(alone),
    tall: Math.round(Math.min(MOST_TALL_PX, Math.max(USUAL.tall, tall)) / 8) * 8,
  };
}

const half = (width: number) => (width - GAP_PX) / 2;
const stepped = (width: number) => Math.max(LEAST_PX, Math.floor(width / STEP_PX) * STEP_PX);
