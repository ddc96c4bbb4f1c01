import { answerOf, client, type Schemas } from "./client";

export const shareFile = (workspace: string, body: Schemas["ShareIn"]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/shared-files", { params: { path: { workspace } }, body }),
  );

export const giveItsOwnFile = (workspace: string, placement: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/shared-files/{placement}", {
      params: { path: { workspace, placement } },
    }),
  );

export const deleteDestination = (workspace: string, destination: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/destinations/{destination}", {
      params: { path: { workspace, destination } },
    }),
  );

export const muteRule = (workspace: string, fit: string, rule: string, reason: string) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/fits/{fit}/muted/{rule}", {
      params: { path: { workspace, fit, rule } },
      body: { reason },
    }),
  );

export const judgeAgain = (workspace: string, fit: string, rule: string) =>
  answerOf(
    client.DELETE("/api/workspaces/{workspace}/fits/{fit}/muted/{rule}", {
      params: { path: { workspace, fit, rule } },
    }),
  );
