import { keepPreviousData, queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Candidates = Schemas["CandidatesOut"];
export type Candidate = Schemas["CandidateOut"];
export type Wish = Schemas["Wish"];
export type FormatOffer = Schemas["FormatOffer"];

const MAKING_MS = 1200; // how often to look whether the file is there

/** What was tried for a fit's file; `state` changes with the fit. */
export const candidatesQuery = (workspace: string, fit: string, state: string) =>
  queryOptions({
    queryKey: [workspace, "candidates", fit, state],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/candidates", {
          params: { path: { workspace, fit } },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.made ? false : MAKING_MS),
  });

const told = (one: Candidate) => JSON.stringify(one.settings);

/** A candidate's score, and where it lost most. */
export const lookQuery = (workspace: string, fit: string, key: string, one: Candidate) =>
  queryOptions({
    queryKey: [workspace, "candidate", fit, key, one.format, told(one)],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/candidates/look", {
          params: { path: { workspace, fit }, query: { format: one.format, settings: told(one) } },
        }),
      ),
    staleTime: Infinity,
  });

/** What a wish would come to. */
export const tryQuery = (workspace: string, fit: string, key: string, wish: Wish) =>
  queryOptions({
    queryKey: [workspace, "wish", fit, key, JSON.stringify(wish)],
    queryFn: () =>
      answerOf(
        client.GET("/api/workspaces/{workspace}/fits/{fit}/candidates/try", {
          params: { path: { workspace, fit }, query: wish },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });

export const fixFile = (workspace: string, fit: string, wish: Wish) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/fits/{fit}/wish", {
      params: { path: { workspace, fit } },
      body: { wish },
    }),
  );

export function pictureOf(
  workspace: string,
  fit: string,
  key: string,
  one: Candidate,
  what: "picture" | "errors",
) {
  const query = new URLSearchParams({ format: one.format, settings: told(one), key });
  return `/api/workspaces/${workspace}/fits/${fit}/candidates/${what}?${query}`;
}

export const originalOf = (workspace: string, fit: string, key: string) =>
  `/api/workspaces/${workspace}/fits/${fit}/candidates/original?key=${key}`;
