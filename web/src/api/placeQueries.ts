import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

/** A sheet that is being written, as it would be shown. */
export const draftQuery = (workspace: string, sheet: Schemas["SheetOut"]["sheet"]) =>
  queryOptions({
    queryKey: [workspace, "draft", sheet],
    queryFn: () =>
      answerOf(
        client.POST("/api/workspaces/{workspace}/places/look", {
          params: { path: { workspace } },
          body: { sheet: sheet as unknown as Record<string, never> },
        }),
      ),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

export const placeReadingQuery = (workspace: string, words: string) =>
  queryOptions({
    queryKey: [workspace, "place-words", words],
    queryFn: () =>
      answerOf(
        client.POST("/api/workspaces/{workspace}/places/read", {
          params: { path: { workspace } },
          body: { words },
        }),
      ),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

/** Places that one file serves, and those that one could serve; asked for anew where other fits `stand` in them. */
export const sharedFilesQuery = (workspace: string, stand = "") =>
  queryOptions({
    queryKey: [workspace, "shared-files", stand],
    placeholderData: (before?: Schemas["GroupOut"][]) => before,
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/shared-files", { params: { path: { workspace } } })),
  });

/** What a rule measures; it changes with the version only. */
export const rulePageQuery = (rule: string) =>
  queryOptions({
    queryKey: ["rule", rule],
    queryFn: () => answerOf(client.GET("/api/rules/{rule}", { params: { path: { rule } } })),
    staleTime: Infinity,
  });
