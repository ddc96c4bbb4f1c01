import { queryOptions } from "@tanstack/react-query";

import { answerOf, client } from "./client";

const BUSY_MS = 600; // how often to look while a worker is busy with something on the screen

export const sessionQuery = () =>
  queryOptions({
    queryKey: ["session"],
    queryFn: () => answerOf(client.GET("/api/session", {})),
    retry: false,
    staleTime: 60_000,
  });

export const wallQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "wall"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/wall", { params: { path: { workspace } } })),
    refetchInterval: (query) =>
      query.state.data?.shelves.some((shelf) => shelf.placements.some((entry) => entry.state === "working"))
        ? BUSY_MS
        : false,
  });

export const artworkQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "artwork"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/artwork", { params: { path: { workspace } } })),
    refetchInterval: (query) =>
      query.state.data?.some((entry) => entry.state === "queued" || entry.state === "reading")
        ? BUSY_MS
        : false,
  });

export const fitQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "fit", fit],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}", { params: { path: { workspace, fit } } }),
      ),
    refetchInterval: (query) => (query.state.data?.measuring ? BUSY_MS : false),
  });

export const deliveriesQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "deliveries"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/deliveries", { params: { path: { workspace } } })),
  });

export const proofUrl = (workspace: string, fit: string, key: string, width: number) =>
  `/api/workspaces/${workspace}/fits/${fit}/proof?width=${Math.max(1, Math.round(width))}&key=${key}`;

export const artworkUrl = (workspace: string, artwork: string, width: number) =>
  `/api/workspaces/${workspace}/artwork/${artwork}/picture?width=${Math.round(width)}`;
