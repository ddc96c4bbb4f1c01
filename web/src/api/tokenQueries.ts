import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Token = Schemas["TokenOut"];
export type NewToken = Schemas["NewTokenOut"];

export const tokensQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "tokens"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/tokens", { params: { path: { workspace } } })),
  });

export const makeToken = (workspace: string, name: string, scopes: string[]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/tokens", {
      params: { path: { workspace } },
      body: { name, scopes },
    }),
  );

export const revokeToken = (workspace: string, number: number) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/tokens/{number}", {
      params: { path: { workspace, number } },
    }),
  );
