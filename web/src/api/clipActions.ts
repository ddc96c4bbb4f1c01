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

/** Replaces colours of a drawn animation, as hex. */
export const recolour = (workspace: string, artwork: string, colours: Record<string, string>) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/colours", {
      params: { path: { workspace, artwork } },
      body: { colours },
    }),
  );
