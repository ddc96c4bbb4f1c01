import { queryOptions } from "@tanstack/react-query";

import { sent } from "./actions";
import { answerOf, client, type Schemas } from "./client";

export type Watermark = Schemas["WatermarkOut"];
export type MarkedPicture = Schemas["MarkedOut"];
export type Stamp = Schemas["Stamp"];
export type WatermarkChange = Schemas["WatermarkChange"];

const BUSY_MS = 600; // how often to look how far it is

export const isMarking = (watermark: Watermark) =>
  watermark.state === "waiting" || watermark.state === "running";

const path = (workspace: string, watermark: string) => ({ path: { workspace, watermark } });

export const watermarkQuery = (workspace: string, watermark: string) =>
  queryOptions({
    queryKey: [workspace, "watermarks", watermark],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/watermarks/{watermark}", {
          params: path(workspace, watermark),
        }),
      ),
    refetchInterval: (query) =>
      query.state.data && (isMarking(query.state.data) || query.state.data.reading > 0) ? BUSY_MS : false,
  });

export const watermarksQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "watermarks"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/watermarks", { params: { path: { workspace } } })),
  });

export const beginWatermark = (workspace: string, mark: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/watermarks", {
      params: { path: { workspace } },
      body: { mark },
    }),
  );

export const changeWatermark = (workspace: string, watermark: string, change: WatermarkChange) =>
  answerOf(
    client.PATCH("/api/workspaces/{workspace}/watermarks/{watermark}", {
      params: path(workspace, watermark),
      body: change,
    }),
  );

export const startWatermark = (workspace: string, watermark: string, folder: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/watermarks/{watermark}/start", {
      params: path(workspace, watermark),
      body: { folder },
    }),
  );

export const cancelWatermark = (workspace: string, watermark: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/watermarks/{watermark}/cancel", {
      params: path(workspace, watermark),
    }),
  );

export const deleteWatermark = (workspace: string, watermark: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/watermarks/{watermark}", {
      params: path(workspace, watermark),
    }),
  );

export const removePicture = (workspace: string, watermark: string, picture: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/watermarks/{watermark}/pictures/{picture}", {
      params: { path: { workspace, watermark, picture } },
    }),
  );

export function addPicture(workspace: string, watermark: string, file: File): Promise<Watermark> {
  const form = new FormData();
  form.append("files", file, file.name);
  return sent<Watermark>(`/api/workspaces/${workspace}/watermarks/${watermark}/pictures`, form, () => {});
}

const base = (workspace: string, watermark: string) => `/api/workspaces/${workspace}/watermarks/${watermark}`;

export const markedProofUrl = (workspace: string, watermark: string, picture: MarkedPicture, width: number) =>
  `${base(workspace, watermark)}/pictures/${picture.id}/proof?width=${width}&key=${picture.key}`;

export const markedFileUrl = (workspace: string, watermark: string, picture: string) =>
  `${base(workspace, watermark)}/pictures/${picture}/file`;

export const markedZipUrl = (workspace: string, watermark: string) => `${base(workspace, watermark)}/zip`;
