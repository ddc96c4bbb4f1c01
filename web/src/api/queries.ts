import { infiniteQueryOptions, queryOptions } from "@tanstack/react-query";

import {
  answerOf,
  client,
  type ArtworkOut,
  type ArtworkWanted,
  type FitOut,
  type PreparationOut,
  type Schemas,
} from "./client";

const COLLEAGUES_MS = 5000; // how often to look whether somebody else has changed the piece
const AT_A_TIME = 60;
const BUSY_MS = 600; // how often to look while a worker is busy with something on the screen

export const sessionQuery = () =>
  queryOptions({
    queryKey: ["session"],
    queryFn: () => answerOf(client.GET("/api/session", {})),
    retry: false,
    staleTime: 60_000,
  });

/** How one comes in here: whether one may sign up, and what becomes of mails. */
export const entranceQuery = (invitation = "") =>
  queryOptions({
    queryKey: ["entrance", invitation],
    queryFn: () => answerOf(client.GET("/api/entrance", { params: { query: { invitation } } })),
  });

export const mailsQuery = () =>
  queryOptions({
    queryKey: ["mails"],
    queryFn: () => answerOf(client.GET("/api/mails", {})),
    refetchInterval: 3000,
  });

/** What a sheet would do to what stands in a place. */
export const effectQuery = (workspace: string, placement: string, sheet: Schemas["SheetOut"]["sheet"]) =>
  queryOptions({
    queryKey: [workspace, "effect", placement, sheet],
    queryFn: () =>
      answerOf(
        client.POST("/api/workspaces/{workspace}/places/{placement}/effect", {
          params: { path: { workspace, placement } },
          body: { sheet },
        }),
      ),
    placeholderData: (before) => before,
  });

/** How far the looking through a screenshot is, and what came of it. */
export const learningQuery = (workspace: string, learning: string) =>
  queryOptions({
    queryKey: [workspace, "learning", learning],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/places/learn/{learning}", {
          params: { path: { workspace, learning } },
        }),
      ),
    refetchInterval: (query) => (query.state.data?.done ? false : BUSY_MS / 2),
  });

/** The house style that an artwork proposes. */
export const houseProposalQuery = (workspace: string, artwork: string) =>
  queryOptions({
    queryKey: [workspace, "house-proposal", artwork],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/house-style", {
          params: { path: { workspace, artwork } },
        }),
      ),
    staleTime: Infinity,
  });

/** The room that a shelf has on the screen, in px. */
export interface Room {
  room: number;
  /** The room of a shelf with a single place. */
  alone: number;
  tall: number;
}

const USUAL_ROOM: Room = { room: 592, alone: 592, tall: 64 };

export const wallQuery = (workspace: string, room = USUAL_ROOM) =>
  queryOptions({
    queryKey: [workspace, "wall", room],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/wall", {
          params: { path: { workspace }, query: { ...room } },
        }),
      ),
    placeholderData: (before) => before,
    refetchInterval: (query) =>
      query.state.data?.busy ||
      query.state.data?.shelves.some((shelf) => shelf.placements.some((entry) => entry.state === "working"))
        ? BUSY_MS
        : false,
  });

/** Whether an artwork is still being read, not yet where it was dropped, or still being prepared. */
export const isOnItsWay = (entry: ArtworkOut) =>
  entry.state === "queued" ||
  entry.state === "reading" ||
  entry.being_prepared ||
  (entry.state === "ready" && entry.targets.length > 0);

/** Whether an artwork can be put into places: ready, with a picture of its own, and not put away. */
export const isChoosable = (entry: ArtworkOut) =>
  entry.state === "ready" && entry.facts?.kind !== "clip" && !entry.put_away;

/** How Fitzle is doing, for who runs it. */
export const doingQuery = () =>
  queryOptions({
    queryKey: ["doing"],
    queryFn: () => answerOf(client.GET("/api/doing", {})),
    refetchInterval: COLLEAGUES_MS,
  });

export const roomQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "room"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/room", { params: { path: { workspace } } })),
  });

const artworkPage = (workspace: string, wanted: ArtworkWanted, start = 0, count = AT_A_TIME) =>
  answerOf(
    client.GET("/api/workspaces/{workspace}/artwork", {
      params: { path: { workspace }, query: { ...wanted, start, count } },
    }),
  );

/** The newest artwork that is as wanted. */
export const artworkQuery = (workspace: string, wanted: ArtworkWanted = {}) =>
  queryOptions({
    queryKey: [workspace, "artwork", wanted],
    queryFn: () => artworkPage(workspace, wanted),
    placeholderData: (before) => before,
    refetchInterval: (query) => (query.state.data?.some(isOnItsWay) ? BUSY_MS : false),
  });

/** All artwork that is as wanted, a page after the other. */
export const artworkPagesQuery = (workspace: string, wanted: ArtworkWanted) =>
  infiniteQueryOptions({
    queryKey: [workspace, "artwork", "pages", wanted],
    queryFn: ({ pageParam }) => artworkPage(workspace, wanted, pageParam),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => (last.length < AT_A_TIME ? undefined : pages.length * AT_A_TIME),
    placeholderData: (before) => before,
    refetchInterval: (query) => (query.state.data?.pages.flat().some(isOnItsWay) ? BUSY_MS : false),
  });

/** One artwork by its id; `enabled` only where there is one. */
export const oneArtworkQuery = (workspace: string, artwork: string | null | undefined) =>
  queryOptions({
    queryKey: [workspace, "artwork", "one", artwork],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}", {
          params: { path: { workspace, artwork: artwork! } },
        }),
      ),
    enabled: !!artwork,
    retry: false,
    refetchInterval: (query) => (query.state.data && isOnItsWay(query.state.data) ? BUSY_MS : false),
  });

/** How much artwork there is and is found, and by what else it can be found. */
export const artworkFoundQuery = (workspace: string, wanted: ArtworkWanted = {}) =>
  queryOptions({
    queryKey: [workspace, "artwork", "found", wanted],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/found", {
          params: { path: { workspace }, query: wanted },
        }),
      ),
    placeholderData: (before) => before,
  });

/** Whether the file of the fit, or of another placement of its piece, is still being made. */
const isBusy = (fit: FitOut) => fit.measuring || fit.rail.some((entry) => entry.state === "working");

export const fitQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "fit", fit],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}", { params: { path: { workspace, fit } } }),
      ),
    refetchInterval: (query) => (query.state.data && isBusy(query.state.data) ? BUSY_MS : COLLEAGUES_MS),
  });

export const preparationQuery = (workspace: string, artwork: string) =>
  queryOptions({
    queryKey: [workspace, "preparation", artwork],
    queryFn: () =>
      answerOf<unknown>(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/preparation", {
          params: { path: { workspace, artwork } },
        }),
      ) as Promise<PreparationOut>,
    refetchInterval: (query) =>
      query.state.data?.working || query.state.data?.steps.some((step) => step.waiting) ? BUSY_MS / 2 : false,
  });

export const stillsQuery = (workspace: string, artwork: string) =>
  queryOptions({
    queryKey: [workspace, "stills", artwork],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/stills", {
          params: { path: { workspace, artwork } },
        }),
      ),
    refetchInterval: (query) => (query.state.data && !query.state.data.proposals ? BUSY_MS : false),
  });

export const glyphsQuery = (workspace: string, words: string, style: "outline" | "filled") =>
  queryOptions({
    queryKey: [workspace, "glyphs", style, words],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/glyphs", {
          params: { path: { workspace }, query: { words, style } },
        }),
      ),
    staleTime: Infinity,
    placeholderData: (before) => before,
  });

/** The colours of a drawn animation, each with the house colour most like it. */
export const colourPairsQuery = (workspace: string, artwork: ArtworkOut) =>
  queryOptions({
    queryKey: [workspace, "colour-pairs", artwork.id, artwork.key],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/artwork/{artwork}/colours", {
          params: { path: { workspace, artwork: artwork.id } },
        }),
      ),
  });

export const houseStyleQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "house-style"],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/house-style", { params: { path: { workspace } } })),
    staleTime: 60_000,
  });

export const harmoniesQuery = (workspace: string, colour: string) =>
  queryOptions({
    queryKey: [workspace, "harmonies", colour],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/harmonies", {
          params: { path: { workspace }, query: { colour } },
        }),
      ),
    staleTime: Infinity,
  });

export const typefacesQuery = (workspace: string, fit: string, part: string, key: string) =>
  queryOptions({
    queryKey: [workspace, "typefaces", fit, part, key],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/typefaces/{part}", {
          params: { path: { workspace, fit, part } },
        }),
      ),
    staleTime: Infinity,
  });

export const contrastsQuery = (
  workspace: string,
  fit: string,
  key: string,
  part: string,
  colours: string[],
) =>
  queryOptions({
    queryKey: [workspace, "contrasts", fit, key, part, colours],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/contrasts", {
          params: { path: { workspace, fit }, query: { part, colours: colours.join(",") } },
        }),
      ),
    staleTime: Infinity,
  });

export const startingPointsQuery = (workspace: string, placement: string) =>
  queryOptions({
    queryKey: [workspace, "starting-points", placement],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/placements/{placement}/starting-points", {
          params: { path: { workspace, placement } },
        }),
      ),
  });

export const proofUrl = (workspace: string, fit: string, key: string, width: number) =>
  `/api/workspaces/${workspace}/fits/${fit}/proof?width=${Math.max(1, Math.round(width))}&key=${key}`;

/** One part alone on a clear ground, or everything but that part: what moves and what stays during a drag. */
export const partUrl = (proof: string, which: "only" | "without", part: string) =>
  `${proof}&${which}=${part}`;

export const sampleUrl = (workspace: string, family: string, text: string, weight: number, italic: boolean) =>
  `/api/workspaces/${workspace}/typefaces/sample?family=${encodeURIComponent(family)}&text=${encodeURIComponent(text)}&weight=${weight}&italic=${italic}`;

export const typefaceUrl = (workspace: string, family: string, weight: number, italic: boolean) =>
  `/api/workspaces/${workspace}/typefaces/file?family=${encodeURIComponent(family)}&weight=${weight}&italic=${italic}`;

export const artworkUrl = (workspace: string, artwork: { id: string; key: string }, width: number) =>
  `/api/workspaces/${workspace}/artwork/${artwork.id}/picture?width=${Math.round(width)}&key=${artwork.key}`;

/** The picture after the first `upto` steps of a preparation. */
/** A moving picture itself; null for what stands still, and for clips. */
export const artworkPlayingUrl = (
  workspace: string,
  { id, key, plays }: { id: string; key: string; plays: boolean },
) => (plays ? `/api/workspaces/${workspace}/artwork/${id}/playing?key=${key}` : null);

export const stepUrl = (workspace: string, artwork: string, upto: number, width: number, key: string) =>
  `/api/workspaces/${workspace}/artwork/${artwork}/preparation/picture?upto=${upto}&width=${Math.round(width)}&key=${key}`;

/** A clip's filmstrip, one of its frames, or the clip itself for the browser to play. */
export const stripUrl = (workspace: string, artwork: string) =>
  `/api/workspaces/${workspace}/artwork/${artwork}/strip`;

export const frameUrl = (workspace: string, artwork: string, at: number, width: number) =>
  `/api/workspaces/${workspace}/artwork/${artwork}/frame?at=${at}&width=${Math.round(width)}`;

export const clipUrl = (workspace: string, artwork: string) =>
  `/api/workspaces/${workspace}/artwork/${artwork}/clip`;

/** What words say of a place; nothing is kept. */
export const placeQuery = (workspace: string, placement: string) =>
  queryOptions({
    queryKey: [workspace, "place", placement],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/places/{placement}", {
          params: { path: { workspace, placement } },
        }),
      ),
  });

export const putAwayPlacesQuery = (workspace: string) =>
  queryOptions({
    queryKey: [workspace, "places-put-away"],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/places/put-away", { params: { path: { workspace } } }),
      ),
  });

export const catalogueQuery = (workspace: string) =>
  queryOptions({
    queryKey: ["catalogue"],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/places/catalogue", { params: { path: { workspace } } }),
      ),
    staleTime: Infinity,
  });
