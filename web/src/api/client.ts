import createClient from "openapi-fetch";

import type { components, paths } from "./schema";
import { sayWhetherSignedIn } from "./session";

export type Schemas = components["schemas"];
export type FitOut = Schemas["FitOut"];
export type PartOut = Schemas["PartOut"];
export type ArtworkWanted = {
  words?: string;
  tag?: string;
  kind?: string;
  seen_in?: string;
  put_away?: boolean;
  ids?: string;
};
export type WallProof = Schemas["WallProof"];
export type ArtworkOut = Schemas["ArtworkOut"];
export type ArtworkPlaced = Schemas["ArtworkPlaced"];
export type WordsPlaced = Schemas["WordsPlaced"];
export type DocumentPart = FitOut["piece"]["document"]["parts"][number];
/** A field set or taken back, a part added, removed or moved. */
export type Change = Schemas["PieceEdit"]["changes"][number];
export type Placing = Schemas["PlacingIn"];
export type PlaceState = WallProof["state"];
export type Limits = Schemas["LimitsOut"];
export type PreparationOut = Schemas["PreparationOut"];
export type Step = Schemas["Preparation"]["steps"][number];
export type StepOf<Kind extends Step["kind"]> = Extract<Step, { kind: Kind }>;
export type Stroke = Schemas["Stroke"];
export type Finding = Schemas["Finding"];

/** What the server said when it could not do something; `body` holds the newer piece after a 409. */
export class Failure extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly body: unknown,
  ) {
    super(message);
  }

  /** The revision under which it was saved nevertheless, where only drawing it failed. */
  get savedRevision(): number | null {
    return (this.body as { saved_revision?: number } | null)?.saved_revision ?? null;
  }
}

export function csrfToken(): string {
  return document.cookie.match(/(?:^|; )fitzle_csrf=([^;]*)/)?.[1] ?? "";
}

export const client = createClient<paths>({ baseUrl: "/", credentials: "same-origin" });
client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
  onResponse({ response }) {
    if (response.status === 401) sayWhetherSignedIn(false);
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Failure with the server's words. */
export async function answerOf<T>(pending: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await pending;
  } catch {
    throw new Failure("The server cannot be reached. Look at your connection, and try again.", 0, null);
  }
  if (answer.response.ok) return answer.data as T;
  throw failureOf(answer.response.status, answer.error);
}

export function failureOf(status: number, body: unknown): Failure {
  const said = (body as { message?: string } | null)?.message;
  return new Failure(said ?? `Something went wrong on our side (${status}). Try again.`, status, body);
}
