import { momentUrl, playingUrl } from "../../../api/motionQueries";

/** What of a loop the proof shows: the moment under the playhead (in seconds), the loop playing, or all parts in. */
export interface Time {
  at: number | null;
  playing: boolean;
}

export const ALL_IN: Time = { at: null, playing: false };

/** The picture of that; null where all parts are in, as the proof shows them anyway. */
export function pictureAt(workspace: string, fit: string, revision: number, time: Time, width: number) {
  if (time.playing) return playingUrl(workspace, fit, `${revision}`, width);
  return time.at === null ? null : momentUrl(workspace, fit, `${revision}`, time.at, width);
}
