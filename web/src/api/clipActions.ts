import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Cut = Schemas["LoopIn"];

export const takeStills = (workspace: string, artwork: string, moments: number[]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/stills", {
      params: { path: { workspace, artwork } },
      body: { moments },
    }),
  );

export const takeLoop = (workspace: string, artwork: string, cut: Partial<Cut>) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/loops", {
      params: { path: { workspace, artwork } },
      body: { begin: 0, speed: 1, closing: "cut", ...cut },
    }),
  );

export const takePages = (workspace: string, artwork: string, pages: number[]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/pages", {
      params: { path: { workspace, artwork } },
      body: { pages },
    }),
  );

/** The part of a clip near this one, and as long, whose end goes over into its beginning best. */
export const bestLoop = (workspace: string, artwork: string, begin: number, end: number) =>
  answerOf(
    client.GET("/api/workspaces/{workspace}/artwork/{artwork}/loops/best", {
      params: { path: { workspace, artwork }, query: { begin, end } },
    }),
  );

/** Places that a part of a clip can be weighed for. */
export const loopPlacesQuery = (workspace: string, artwork: string) =>
  queryOptions({
    queryKey: [workspace, "loops", artwork, "places"],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/loops/places", {
          params: { path: { workspace, artwork } },
        }),
      ),
  });

export interface WeighedLoop {
  placement: string;
  begin: number;
  end: number;
  closing: Cut["closing"];
  /** Whether the file is made, which takes a while. */
  make: boolean;
}

/** What a part weighs as the file of a place. */
export const loopWeightQuery = (workspace: string, artwork: string, loop: WeighedLoop) =>
  queryOptions({
    queryKey: [workspace, "loops", artwork, "weight", loop],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/loops/weight", {
          params: { path: { workspace, artwork }, query: loop },
        }),
      ),
    retry: false,
  });

/** Replaces colours of a drawn animation, as hex. */
export const recolour = (workspace: string, artwork: string, colours: Record<string, string>) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/colours", {
      params: { path: { workspace, artwork } },
      body: { colours },
    }),
  );
