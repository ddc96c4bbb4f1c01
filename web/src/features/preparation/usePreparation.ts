import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { moveInSteps, proposeStep, saveSteps, type Proposal } from "../../api/actions";
import type { PreparationOut, Schemas, Step } from "../../api/client";
import { preparationQuery } from "../../api/queries";
import type { Sending } from "../../ui/useOutbox";
import { isStale, useRevisions, type Revisions } from "../../ui/useRevisions";
import { STEP_NAMES } from "./stepWords";

export interface Preparing {
  workspace: string;
  artwork: string;
  data: PreparationOut | undefined;
  error: Error | null;
  outbox: Sending<unknown>;
  trouble: Error | null;
  forgetTrouble: () => void;
  /** The step that is open. */
  chosen: Step | undefined;
  choose: (id: string | null) => void;
  /** Adds a step of a kind, as the server says that it is at first. */
  add: (kind: Step["kind"]) => void;
  propose: (kind: Proposal, instead?: string, ratio?: number | null) => void;
  proposing: boolean;
  change: (words: string, step: Step) => void;
  remove: (step: Step) => void;
  move: (step: Step, by: 1 | -1) => void;
  undo: () => void;
  redo: () => void;
}

const PROPOSED: Record<Proposal, string> = {
  improve: "improvement of light",
  "red-eyes": "repair of red eyes",
  subject: "crop to the subject",
  "dark-version": "colours for dark grounds",
};

/** Everything the preparation screen does to one artwork. Changes save themselves, one after the other. */
export function usePreparation(workspace: string, artwork: string): Preparing {
  const options = preparationQuery(workspace, artwork);
  const query = useQuery(options);
  const [chosen, choose] = useState<string | null>(null);

  const revisions: Revisions<PreparationOut, Save> = useRevisions<PreparationOut, Save>({
    queryKey: options.queryKey,
    place: `preparation-${artwork}`,
    others: ["artwork", "wall", "fit"].map((other) => [workspace, other]),
    revisionOf: (preparation) => preparation.revision,
    send: ({ words, steps }, revision, key) => {
      const document = { ...revisions.now().document, steps };
      return saveSteps(workspace, artwork, { revision, document, step: words, key });
    },
    move: (way) => moveInSteps(workspace, artwork, way),
    keeps: () => true,
    refused: (error) => {
      if (isStale(error)) void revisions.keep((error.body as Schemas["StaleSteps"]).newest as PreparationOut);
      return false;
    },
  });
  const { outbox, unsaved } = revisions;
  const data = query.data && unsaved.length > 0 ? shownWith(query.data, unsaved.at(-1)!.steps) : query.data;
  const steps = data?.document.steps ?? [];
  const save = (words: string, change: (steps: Step[]) => Step[]) =>
    revisions.save({ words, steps: change(steps) });
  const proposal = useMutation({
    mutationFn: ({ kind, id, ratio }: { kind: Proposal; id: string; ratio: number | null }) =>
      proposeStep(workspace, artwork, kind, id, ratio),
    onSuccess: (step, { kind }) => put(step as Step, PROPOSED[kind]),
  });

  const put = (step: Step, words: string) => {
    save(words, (all) =>
      all.some((one) => one.id === step.id)
        ? all.map((one) => (one.id === step.id ? step : one))
        : [...all, step],
    );
    choose(step.id);
  };
  return {
    workspace,
    artwork,
    data,
    error: query.error,
    outbox,
    trouble: outbox.trouble ?? proposal.error,
    forgetTrouble: () => (outbox.trouble ? outbox.forgetTrouble() : proposal.reset()),
    chosen: steps.find((step) => step.id === chosen),
    choose,
    add: (kind) => {
      const first = query.data!.first_steps.find((step) => step.kind === kind)!;
      put({ ...first, id: freshId(steps) } as Step, `add ${STEP_NAMES[kind].toLowerCase()}`);
    },
    propose: (kind, instead, ratio = null) => proposal.mutate({ kind, id: instead ?? freshId(steps), ratio }),
    proposing: proposal.isPending,
    change: (words, step) => save(words, (all) => all.map((one) => (one.id === step.id ? step : one))),
    remove: (step) =>
      save(`remove ${STEP_NAMES[step.kind].toLowerCase()}`, (all) => all.filter((one) => one.id !== step.id)),
    move: (step, by) => save(`move ${STEP_NAMES[step.kind].toLowerCase()}`, (all) => moved(all, step, by)),
    undo: revisions.undo,
    redo: revisions.redo,
  };
}

interface Save {
  words: string;
  steps: Step[];
}

/** A preparation as its fields show it: with steps that the server does not have yet. */
const shownWith = (data: PreparationOut, steps: Step[]): PreparationOut => ({
  ...data,
  document: { ...data.document, steps },
});

function freshId(steps: Step[]): string {
  let number = steps.length + 1;
  while (steps.some((step) => step.id === `s${number}`)) number += 1;
  return `s${number}`;
}

function moved(steps: Step[], step: Step, by: 1 | -1): Step[] {
  const from = steps.findIndex((one) => one.id === step.id);
  const to = Math.min(Math.max(from + by, 0), steps.length - 1);
  const others = steps.filter((one) => one.id !== step.id);
  return [...others.slice(0, to), steps[from]!, ...others.slice(to)];
}
