import { momentUrl } from "../../../api/motionQueries";

/** What of a loop the proof shows: the moment under the playhead (in seconds), the loop playing, or all parts in. */
export interface Time {
  at: number | null;
  playing: boolean;
}

export const ALL_IN: Time = { at: null, playing: false };

/** The picture of the moment under the playhead; null where there is none. */
export const pictureAt = (workspace: string, fit: string, revision: number, time: Time, width: number) =>
  time.playing || time.at === null ? null : momentUrl(workspace, fit, `${revision}`, time.at, width);
