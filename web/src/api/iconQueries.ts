import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Icons = Schemas["IconSetOut"];
export type Icon = Schemas["IconOut"];

const MAKING_MS = 1200; // how often to look whether the files are there

/** The files of an icon set; `state` changes with the fit. */
export const iconsQuery = (workspace: string, fit: string, state: string) =>
  queryOptions({
    queryKey: [workspace, "icons", fit, state],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/icons", { params: { path: { workspace, fit } } }),
      ),
    placeholderData: (before) => before,
    refetchInterval: (query) => (query.state.data?.made ? false : MAKING_MS),
  });

/** All icons of a site from a mark, or those that it has already. */
export const makeIcons = (workspace: string, artwork: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/icons", {
      params: { path: { workspace, artwork } },
    }),
  );

export const iconUrl = (workspace: string, fit: string, icon: Icon) =>
  `/api/workspaces/${workspace}/fits/${fit}/icons/${icon.name}?key=${icon.key}`;

export const iconsZipUrl = (workspace: string, fit: string) =>
  `/api/workspaces/${workspace}/fits/${fit}/icons/zip`;
