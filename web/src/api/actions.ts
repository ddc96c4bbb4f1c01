import {
  answerOf,
  client,
  csrfToken,
  failureOf,
  type ArtworkOut,
  type PreparationOut,
  type Schemas,
} from "./client";

export const callMe = (name: string) => answerOf(client.PATCH("/api/session", { body: { name } }));

/** Deletes a workspace; it can be had back for 14 days. */
export const deleteWorkspace = (workspace: string) =>
  answerOf(client.POST("/api/workspaces/{workspace}/leaving", { params: { path: { workspace } } }));

export const bringWorkspaceBack = (workspace: string) =>
  answerOf(client.DELETE("/api/workspaces/{workspace}/leaving", { params: { path: { workspace } } }));

/** A workspace out of the ZIP of one that was saved. */
export function bringInWorkspace(file: File, onSent: (share: number) => void) {
  const form = new FormData();
  form.append("file", file, file.name);
  return sent<Schemas["WorkspaceOut"]>("/api/workspaces/bring-in", form, onSent);
}

export interface ShownPlace {
  picture: File | null;
  screenshot: File;
  density: number;
  /** Drawn on the screenshot, in its px, where there is no picture. */
  box: { x: number; y: number; width: number; height: number } | null;
}

/** Has a picture looked for in a screenshot. */
export function learnPlace(workspace: string, shown: ShownPlace) {
  const form = new FormData();
  form.append("screenshot", shown.screenshot, shown.screenshot.name);
  if (shown.picture) form.append("picture", shown.picture, shown.picture.name);
  form.append("density", String(shown.density));
  for (const [key, value] of Object.entries(shown.box ?? {})) form.append(key, String(value));
  return sent<Schemas["LearningOut"]>(`/api/workspaces/${workspace}/places/learn`, form, () => undefined);
}

/** The sheets of sheet files, of ZIPs of them, and of pictures that a place took. */
export function sheetsOfFiles(workspace: string, files: File[]) {
  const form = new FormData();
  for (const file of files) form.append("files", file, file.name);
  return sent<Schemas["TakenOut"][]>(`/api/workspaces/${workspace}/places/from-files`, form, () => undefined);
}

/** The sheet of a place that was found, with what the person answered. */
export const answerLearnt = (workspace: string, learning: string, number: number, body: Schemas["Answers"]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/places/learn/{learning}/{number}", {
      params: { path: { workspace, learning, number } },
      body,
    }),
  );

export const makeInvitation = () => answerOf(client.POST("/api/invitations", {}));

/** Takes over the house style that an artwork proposes. */
export const takeHouseStyle = (workspace: string, artwork: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/house-style", {
      params: { path: { workspace, artwork } },
    }),
  );

export const signOut = () => answerOf(client.DELETE("/api/session", {}));

export const placeArtwork = (workspace: string, artwork: string, placements: string[]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits", {
      params: { path: { workspace } },
      body: { artwork, placements },
    }),
  );

export const changeFit = (workspace: string, fit: string, edit: Schemas["Edit"]) =>
  answerOf(
    client.PATCH("/api/workspaces/{workspace}/fits/{fit}", {
      params: { path: { workspace, fit } },
      body: edit,
    }),
  );

/** A part to add: by role, from artwork, or artwork in the place of a part's own. */
export interface Addition {
  role?: string;
  artwork?: string;
  instead?: string;
  x?: number;
  y?: number;
}

export const addPart = (
  workspace: string,
  fit: string,
  part: Addition & { revision: number; proof_width: number },
) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/parts", {
      params: { path: { workspace, fit } },
      body: { role: "", ...part },
    }),
  );

export const beginPiece = (workspace: string, placement: string, starting_point: number) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/placements/{placement}/pieces", {
      params: { path: { workspace, placement } },
      body: { starting_point },
    }),
  );

export const repairFit = (workspace: string, fit: string, name: string, part?: string | null) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/repairs/{name}", {
      params: { path: { workspace, fit, name }, query: { part } },
    }),
  );

/** Lets the parts of a piece move, calm (0) to lively (1); null lets them stand still. */
/** Lets places of other shapes follow this one by calculation, or all keep to the boxes of the piece. */
export const composeFor = (workspace: string, fit: string, on: boolean) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/fits/{fit}/composed", {
      params: { path: { workspace, fit } },
      body: { on },
    }),
  );

export const letMove = (workspace: string, fit: string, liveliness: number | null) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/motion", {
      params: { path: { workspace, fit } },
      body: { liveliness },
    }),
  );

export const prepareHere = (workspace: string, fit: string, step: string, part: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/prepared/{part}", {
      params: { path: { workspace, fit, part }, query: { step } },
    }),
  );

export const takeAway = (workspace: string, fit: string) =>
  answerOf(client.DELETE("/api/workspaces/{workspace}/fits/{fit}", { params: { path: { workspace, fit } } }));

export const moveInHistory = (workspace: string, piece: string, way: "undo" | "redo") =>
  answerOf(
    client.POST(`/api/workspaces/{workspace}/pieces/{piece}/${way}`, {
      params: { path: { workspace, piece } },
    }),
  );

export const describeArtwork = (workspace: string, artwork: string, given: Schemas["Description"]) =>
  answerOf(
    client.PATCH("/api/workspaces/{workspace}/artwork/{artwork}", {
      params: { path: { workspace, artwork } },
      body: given,
    }),
  );

/** Has the file at an address on the web fetched and read. */
export const bringInFromWeb = (workspace: string, address: string, targets: string[]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/from-web", {
      params: { path: { workspace } },
      body: { address, targets },
    }),
  );

/** Joins a mark with another one as its version for other grounds; null parts it. */
export const joinVersions = (workspace: string, artwork: string, other: string | null) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/artwork/{artwork}/version-of", {
      params: { path: { workspace, artwork } },
      body: { artwork: other },
    }),
  );

/** Makes a version of a mark for dark grounds. */
export const makeDarkVersion = (workspace: string, artwork: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/dark-version", {
      params: { path: { workspace, artwork } },
    }),
  );

/** Gives an artwork a newer file of itself. */
export const replaceArtwork = (workspace: string, artwork: string, file: File) => {
  const form = new FormData();
  form.append("file", file, file.name);
  return answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/newer", {
      params: { path: { workspace, artwork } },
      body: form as never,
      bodySerializer: (body) => body as unknown as FormData,
    }),
  );
};

export const bringBackArtwork = (workspace: string, artwork: string, number: number) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/earlier/{number}", {
      params: { path: { workspace, artwork, number } },
    }),
  );

// The client's own types lose the lengths of tuples: what it answers is said here once more.
export const saveSteps = (
  workspace: string,
  artwork: string,
  steps: Schemas["StepsIn"],
): Promise<PreparationOut> =>
  answerOf<unknown>(
    client.PUT("/api/workspaces/{workspace}/artwork/{artwork}/preparation", {
      params: { path: { workspace, artwork } },
      body: steps,
    }),
  ) as Promise<PreparationOut>;

export const moveInSteps = (
  workspace: string,
  artwork: string,
  way: "undo" | "redo",
): Promise<PreparationOut> =>
  answerOf<unknown>(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/preparation/history/{way}", {
      params: { path: { workspace, artwork, way } },
    }),
  ) as Promise<PreparationOut>;

export type Proposal = "improve" | "red-eyes" | "subject" | "dark-version";

export const proposeStep = (
  workspace: string,
  artwork: string,
  kind: Proposal,
  step: string,
  ratio: number | null = null,
) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/artwork/{artwork}/preparation/proposals/{kind}", {
      params: { path: { workspace, artwork, kind } },
      body: { step, ratio },
    }),
  );

/** When the frame at a moment is shown, or the one after it (1) or before it (-1). */
export const momentOf = (workspace: string, artwork: string, at: number, step: -1 | 0 | 1) =>
  answerOf(
    client.GET("/api/workspaces/{workspace}/artwork/{artwork}/moment", {
      params: { path: { workspace, artwork }, query: { at, step } },
    }),
  ).then((moment) => moment.seconds);

/** Ends the search for the file of a fit with the best that it has found so far. */
export const endSearch = (workspace: string, fit: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/enough", { params: { path: { workspace, fit } } }),
  );

export const saveHouseStyle = (workspace: string, style: Schemas["HouseStyleIn"]) =>
  answerOf(
    client.PUT("/api/workspaces/{workspace}/house-style", { params: { path: { workspace } }, body: style }),
  );

export const markFromGlyph = (workspace: string, glyph: Schemas["GlyphIn"]) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/glyphs", { params: { path: { workspace } }, body: glyph }),
  );

/** Uploads files; `onSent` gets the share of the bytes that went out (fetch cannot tell that). */
export function bringIn(
  workspace: string,
  files: File[],
  targets: string[],
  tags: string[],
  onSent: (share: number) => void,
): Promise<ArtworkOut[]> {
  const form = new FormData();
  for (const file of files) form.append("files", file, file.name);
  form.append("targets", targets.join(","));
  form.append("tags", tags.join(","));
  return sent<ArtworkOut[]>(`/api/workspaces/${workspace}/artwork`, form, onSent);
}

/** Sends files, and tells how much of them is on its way. */
export function sent<T>(address: string, form: FormData, onSent: (share: number) => void): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", address);
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.responseType = "json";
    request.upload.onprogress = (event) => onSent(event.lengthComputable ? event.loaded / event.total : 0);
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as T)
        : reject(failureOf(request.status, request.response));
    request.onerror = () =>
      reject(failureOf(0, { message: "The server cannot be reached. Drop the file again." }));
    request.send(form);
  });
}

/** Has the browser save what is at an address of ours. */
export function save(address: string): void {
  const link = document.createElement("a");
  link.href = address;
  link.download = "";
  document.body.append(link);
  link.click();
  link.remove();
}

type NewPlace = Omit<Schemas["NewPlace"], "found"> & { found?: number };

export const addPlace = (workspace: string, place: NewPlace) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/places", {
      params: { path: { workspace } },
      body: { found: 0, ...place },
    }),
  );

export const changeDestination = (
  workspace: string,
  destination: string,
  body: Partial<Schemas["DestinationChange"]>,
) =>
  answerOf(
    client.PATCH("/api/workspaces/{workspace}/destinations/{destination}", {
      params: { path: { workspace, destination } },
      body: body as Schemas["DestinationChange"],
    }),
  );

export const changePlace = (workspace: string, placement: string, body: Schemas["PlaceChange"]) =>
  answerOf(
    client.PATCH("/api/workspaces/{workspace}/places/{placement}", {
      params: { path: { workspace, placement } },
      body,
    }),
  );

export const beginWorkspace = (name: string) => answerOf(client.POST("/api/workspaces", { body: { name } }));

export const renameWorkspace = (workspace: string, name: string) =>
  answerOf(client.PATCH("/api/workspaces/{workspace}", { params: { path: { workspace } }, body: { name } }));

export const leaveWorkspace = (workspace: string) =>
  answerOf(client.POST("/api/workspaces/{workspace}/leave", { params: { path: { workspace } } }));

export const bringSheetBack = (workspace: string, placement: string, revision: number) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/places/{placement}/earlier/{revision}", {
      params: { path: { workspace, placement, revision } },
    }),
  );

/** Has a version of a mark with fewer parts made for one place; it stands there once it is read. */
export const simplifyMark = (workspace: string, fit: string, part: string) =>
  answerOf(
    client.POST("/api/workspaces/{workspace}/fits/{fit}/simpler/{part}", {
      params: { path: { workspace, fit, part } },
    }),
  );
