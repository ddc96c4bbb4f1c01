import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Motion = Schemas["MotionOut"];
export type Track = Schemas["TrackOut"];
export type PartMotion = Schemas["PartMotion"];

/** What moves in a fit; `revision` is that of its piece. */
export const motionQuery = (workspace: string, fit: string, revision: number) =>
  queryOptions({
    queryKey: [workspace, "motion", fit, revision],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/motion", {
          params: { path: { workspace, fit } },
        }),
      ),
    placeholderData: (before) => before,
  });

/** The loop as a picture that plays; `key` changes whenever the loop does. */
export const playingUrl = (workspace: string, fit: string, key: string, width: number) =>
  `/api/workspaces/${workspace}/fits/${fit}/motion/playing?width=${Math.round(width)}&key=${key}`;

/** So many frames of the loop from one on, one below the other. */
export const framesUrl = (
  workspace: string,
  fit: string,
  key: string,
  width: number,
  first: number,
  count: number,
) =>
  `/api/workspaces/${workspace}/fits/${fit}/motion/frames?first=${first}&count=${count}&width=${Math.round(width)}&key=${key}`;

/** The picture of a moment of the loop. */
export const momentUrl = (workspace: string, fit: string, key: string, seconds: number, width: number) =>
  `/api/workspaces/${workspace}/fits/${fit}/motion/moment?at=${seconds.toFixed(2)}&width=${Math.round(width)}&key=${key}`;
