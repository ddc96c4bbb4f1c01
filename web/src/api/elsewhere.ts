import { queryOptions } from "@tanstack/react-query";

import { answerOf, client, type Schemas } from "./client";

export type PlaceElsewhere = Schemas["PlaceElsewhere"];

const PROOF_PX = 300;
const ADDRESS = "/api/workspaces/{workspace}/fits/{fit}/elsewhere";

/** All places, and what stands there. */
export const elsewhereQuery = (workspace: string, fit: string) =>
  queryOptions({
    queryKey: [workspace, "elsewhere", fit],
    queryFn: () => answerOf(client.GET(ADDRESS, { params: { path: { workspace, fit } } })),
  });

/** How the piece of a fit would look in a place. */
export const elsewhereProofUrl = (workspace: string, fit: string, place: PlaceElsewhere) =>
  `/api/workspaces/${workspace}/fits/${fit}/elsewhere/${place.id}/proof?width=${PROOF_PX}&key=${place.key}`;

/** Puts the piece of a fit into other places too. */
export const standElsewhere = (workspace: string, fit: string, placements: string[]) =>
  answerOf(client.POST(ADDRESS, { params: { path: { workspace, fit } }, body: { placements } }));
