import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Ready = Schemas["ReadyOut"];
export type ReadyFit = Schemas["ReadyFitOut"];
export type Field = Schemas["FieldOut"];
export type Handing = Schemas["Handing"];
export type Delivery = Schemas["DeliveryOut"];
export type DeliveredFile = Schemas["DeliveredFileOut"];
export type RecordShelf = Schemas["RecordShelf"];
export type RecordPlace = Schemas["RecordPlace"];
export type Deliver = Schemas["Deliver"];

const BUSY_MS = 700; // how often to look how far a delivery is
const STILL_MAKING_MS = 3000; // files may still be made while the list is open

export const isUnderWay = (delivery: Delivery) =>
  delivery.state === "waiting" || delivery.state === "running";

/** What can be handed over, under the names that it would get. */
export const readyQuery = (workspace: string, flat: boolean) =>
  queryOptions({
    queryKey: [workspace, "ready", flat],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/deliveries/ready", {
          params: { path: { workspace }, query: { flat } },
        }),
      ),
    placeholderData: (before) => before,
    staleTime: 0,
    refetchInterval: STILL_MAKING_MS,
  });

export const deliveriesQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "deliveries"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/deliveries", { params: { path: { workspace } } })),
    refetchInterval: (query) => (query.state.data?.some(isUnderWay) ? BUSY_MS : false),
  });

/** One delivery, looked at until it has ended. */
export const deliveryQuery = (workspace: string, delivery: string) =>
  queryOptions({
    queryKey: [workspace, "delivery", delivery],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/deliveries/{delivery}", {
          params: { path: { workspace, delivery } },
        }),
      ),
    refetchInterval: (query) => (!query.state.data || isUnderWay(query.state.data) ? BUSY_MS : false),
  });

/** What is live where; `state` changes with the deliveries. */
export const recordQuery = (workspace: string, state: string) =>
  queryOptions({
    queryKey: [workspace, "record", state],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/deliveries/record", { params: { path: { workspace } } }),
      ),
    placeholderData: (before) => before,
  });

export const historyQuery = (workspace: string, placement: string) =>
  queryOptions({
    queryKey: [workspace, "history", placement],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/deliveries/record/{placement}", {
          params: { path: { workspace, placement } },
        }),
      ),
    staleTime: 0,
  });

export const emojiQuery = (workspace: string, words: string) =>
  queryOptions({
    queryKey: [workspace, "emoji", words],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/emoji", {
          params: { path: { workspace }, query: { words } },
        }),
      ),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

export const deliver = (workspace: string, body: Deliver) =>
  answerOf(client.POST("/api/workspaces/{workspace}/deliveries", { params: { path: { workspace } }, body }));

/** Hands files over, and waits until that has ended. */
export async function deliverAndWait(workspace: string, body: Deliver): Promise<Delivery> {
  let delivery = await deliver(workspace, body);
  while (isUnderWay(delivery)) {
    await new Promise((done) => setTimeout(done, BUSY_MS / 2));
    delivery = await deliveryQuery(workspace, delivery.id).queryFn!({} as never);
  }
  return delivery;
}

export const cancelDelivery = (workspace: string, delivery: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/deliveries/{delivery}/cancel", {
      params: { path: { workspace, delivery } },
    }),
  );

export const goOnWith = (workspace: string, delivery: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/deliveries/{delivery}/again", {
      params: { path: { workspace, delivery } },
    }),
  );

export const sayLive = (workspace: string, file: string, live: boolean) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/deliveries/files/{file}/live", {
      params: { path: { workspace, file } },
      body: { live },
    }),
  );

export const takeBack = (workspace: string, file: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/deliveries/files/{file}/back", {
      params: { path: { workspace, file } },
    }),
  );

export const fillFields = (
  workspace: string,
  fit: string,
  values: Record<string, string>,
  alternative_text: string | null,
) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/fits/{fit}/fields", {
      params: { path: { workspace, fit } },
      body: { values, alternative_text },
    }),
  );

export const rememberHanding = (workspace: string, placement: string, body: Handing) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/places/{placement}/handing", {
      params: { path: { workspace, placement } },
      body,
    }),
  );

/** What the destination said of an upload, and how it shows it. */
export interface UploadAnswer {
  taken?: boolean;
  said?: string[];
  ours?: string;
  agree?: boolean;
  page?: string;
  picture?: string;
  shown?: { words: string; score: number | null; width: number; height: number } | null;
}

export const answerTo = (file: DeliveredFile) => file.answer as UploadAnswer;

export const shownUrl = (workspace: string, file: string) => `${fileUrl(workspace, file)}/shown`;

export const fileUrl = (workspace: string, file: string) =>
  `/api/workspaces/${workspace}/deliveries/files/${file}`;

export const pictureUrl = (workspace: string, file: string) => `${fileUrl(workspace, file)}/picture`;

export const zipUrl = (workspace: string, delivery: string) =>
  `/api/workspaces/${workspace}/deliveries/${delivery}/zip`;

/** A file that was handed over, as a file. */
export const deliveredQuery = (workspace: string, file: string) =>
  queryOptions({
    queryKey: [workspace, "delivered", file],
    queryFn: async () => {
      const answer = await fetch(pictureUrl(workspace, file));
      if (!answer.ok) throw new Error("This file is not there any more.");
      const data = await answer.blob();
      return new File([data], "delivered", { type: data.type });
    },
    staleTime: Infinity,
  });

/** How files get to a destination; null where it has no connection. */
export const connectionQuery = (workspace: string, destination: string) =>
  queryOptions({
    queryKey: [workspace, "connection", destination],
    queryFn: async () => {
      const { data, response } = await client.GET(
        "/api/workspaces/{workspace}/destinations/{destination}/connection",
        { params: { path: { workspace, destination } } },
      );
      return response.status === 200 ? (data ?? null) : null;
    },
  });

export const saveConnection = (workspace: string, destination: string, body: Schemas["ConnectionIn"]) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/destinations/{destination}/connection", {
      params: { path: { workspace, destination } },
      body,
    }),
  );

export const endConnection = (workspace: string, destination: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/destinations/{destination}/connection", {
      params: { path: { workspace, destination } },
    }),
  );
