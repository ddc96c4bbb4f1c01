import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Takes = Schemas["TakesOut"];
export type Take = Takes["takes"][number];
export type Proposal = Schemas["ProposalOut"];

const MAKING_MS = 1500; // how often to look while a file is being made

const path = (workspace: string, fit: string) => ({ params: { path: { workspace, fit } } });

export const takesQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "takes", fit],
    queryFn: () => answerOf(client.GET("/api/workspaces/{workspace}/fits/{fit}/takes", path(workspace, fit))),
    refetchInterval: (query) =>
      query.state.data?.takes.some((take) => take.state === "working") ? MAKING_MS : false,
  });

export const proposalsQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "proposals", fit],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/fits/{fit}/proposals", path(workspace, fit))),
    staleTime: 60_000,
  });

export const addTake = (workspace: string, fit: string, proposal: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/takes", {
      ...path(workspace, fit),
      body: { proposal },
    }),
  );

export const chooseTake = (workspace: string, fit: string, everywhere: boolean) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/choose", {
      ...path(workspace, fit),
      body: { everywhere },
    }),
  );

export const dropTake = (workspace: string, fit: string) =>
  answerOf(client.DELETE("/api/workspaces/{workspace}/fits/{fit}", path(workspace, fit)));
