import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type Question = Schemas["QuestionOut"];

const ANSWERS_MS = 8000; // how often to look whether somebody answered

const path = (workspace: string, fit: string) => ({ params: { path: { workspace, fit } } });

export const questionsQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "questions", fit],
    queryFn: () =>
      answerOf(client.GET("/api/workspaces/{workspace}/fits/{fit}/questions", path(workspace, fit))),
    refetchInterval: (query) => (query.state.data?.some((one) => one.open) ? ANSWERS_MS : false),
  });

export const askPeople = (workspace: string, fit: string, scene: string, days: number) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/questions", {
      ...path(workspace, fit),
      body: { scene, days },
    }),
  );

export const endQuestion = (workspace: string, question: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/questions/{question}", {
      params: { path: { workspace, question } },
    }),
  );

export const askedQuery = (token: string) =>
  queryOptions({
    queryKey: ["asked", token],
    queryFn: () => answerOf(client.GET("/api/ask/{token}", { params: { path: { token } } })),
    retry: false,
    staleTime: Infinity,
  });

export const answer = (token: string, option: string, why: string) =>
  answerOf(client.POST("/api/ask/{token}", { params: { path: { token } }, body: { option, why } }));

export const optionUrl = (token: string, option: string) => `/api/ask/${token}/${option}/picture`;
