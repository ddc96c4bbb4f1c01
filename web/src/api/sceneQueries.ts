import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Scenes = Schemas["ScenesOut"];
export type Scene = Scenes["scenes"][number];
export type Item = Scene["items"][number];
export type Sight = "usual" | "protan" | "deutan" | "tritan" | "far";

const MAKING_MS = 1500; // how often to look whether the very file is there

/** The scenes of a fit; `state` changes with what stands in them. */
export const scenesQuery = (workspace: string, fit: string, state: string) =>
  queryOptions({
    queryKey: [workspace, "scenes", fit, state],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/scenes", { params: { path: { workspace, fit } } }),
      ),
    placeholderData: (before) => before,
    refetchInterval: (query) => (query.state.data?.made ? false : MAKING_MS),
  });

export const seenQuery = (token: string) =>
  queryOptions({
    queryKey: ["seen", token],
    queryFn: () => answerOf(client.GET("/api/seen/{token}", { params: { path: { token } } })),
    retry: false,
  });

/** Where pictures of scenes come from. */
export interface Source {
  /** What the destination shows; of an icon set another icon in each scene. */
  shown: (scene: string) => string;
  /** The screenshot that its place was shown by, where it was. */
  shot: string;
  /** A scene drawn by the server; none where only the picture may be seen. */
  scene?: (id: string, sight: Sight, scale: number) => string;
}

type Keys = Pick<Scenes, "shown" | "shot" | "each">;

/** One picture stands in all scenes, and is loaded once; of an icon set each scene has its own. */
const inScene = (keys: Keys, scene: string) => (keys.each ? `&scene=${encodeURIComponent(scene)}` : "");

export function sourceOf(workspace: string, fit: string, keys: Keys): Source {
  const base = `/api/workspaces/${workspace}/fits/${fit}`;
  return {
    shown: (scene) => `${base}/shown?key=${keys.shown}${inScene(keys, scene)}`,
    shot: `${base}/shot?key=${keys.shot}`,
    scene: (id, sight, scale) =>
      `${base}/scenes/${encodeURIComponent(id)}/picture?sight=${sight}&scale=${scale}&key=${keys.shown}`,
  };
}

export const seenSource = (token: string, keys: Keys): Source => ({
  shown: (scene) => `/api/seen/${token}/shown?key=${keys.shown}${inScene(keys, scene)}`,
  shot: `/api/seen/${token}/shot?key=${keys.shot}`,
});

export const proofSheetUrl = (workspace: string, fit: string, kind: "pdf" | "png", scenes: string[]) =>
  `/api/workspaces/${workspace}/fits/${fit}/proof-sheet?kind=${kind}&scenes=${encodeURIComponent(scenes.join(","))}`;

export const makePhoneLink = (workspace: string, fit: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/phone-link", {
      params: { path: { workspace, fit } },
    }),
  );
