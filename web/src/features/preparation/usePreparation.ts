import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { moveInSteps, proposeStep, saveSteps, type Proposal } from "../../api/actions";
import type { PreparationOut, Schemas, Step } from "../../api/client";
import { preparationQuery } from "../../api/queries";
import { isStale, useRevisions } from "../../ui/useRevisions";
import { STEP_NAMES } from "./stepWords";

export interface Preparing {
  workspace: string;
  artwork: string;
  data: PreparationOut | undefined;
  error: Error | null;
  saving: boolean;
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

  const { now, keep, inTurn, ...revisions } = useRevisions<PreparationOut>({
    queryKey: options.queryKey,
    scope: `preparation-${artwork}`,
    others: ["artwork", "wall", "fit"].map((other) => [workspace, other]),
    move: (way) => moveInSteps(workspace, artwork, way),
  });
  const save = useMutation({
    ...inTurn,
    mutationFn: ({ words, change }: { words: string; change: (steps: Step[]) => Step[] }) => {
      const { revision, document } = now();
      const steps = change(document.steps);
      return saveSteps(workspace, artwork, { revision, document: { ...document, steps }, step: words });
    },
    onSuccess: keep,
    onError: (error) => {
      if (isStale(error)) void keep((error.body as Schemas["StaleSteps"]).newest as PreparationOut);
    },
  });
  const proposal = useMutation({
    mutationFn: ({ kind, id, ratio }: { kind: Proposal; id: string; ratio: number | null }) =>
      proposeStep(workspace, artwork, kind, id, ratio),
    onSuccess: (step, { kind }) => put(step as Step, PROPOSED[kind]),
  });

  const put = (step: Step, words: string) => {
    save.mutate({
      words,
      change: (steps) =>
        steps.some((one) => one.id === step.id)
          ? steps.map((one) => (one.id === step.id ? step : one))
          : [...steps, step],
    });
    choose(step.id);
  };
  const steps = query.data?.document.steps ?? [];
  const trouble = [save, proposal].find((one) => one.error);
  return {
    workspace,
    artwork,
    data: query.data,
    error: query.error,
    saving: save.isPending || revisions.moving,
    trouble: trouble?.error ?? revisions.moveTrouble,
    forgetTrouble: () => (trouble ?? { reset: revisions.forget }).reset(),
    chosen: steps.find((step) => step.id === chosen),
    choose,
    add: (kind) => {
      const first = query.data!.first_steps.find((step) => step.kind === kind)!;
      put({ ...first, id: freshId(steps) } as Step, `add ${STEP_NAMES[kind].toLowerCase()}`);
    },
    propose: (kind, instead, ratio = null) => proposal.mutate({ kind, id: instead ?? freshId(steps), ratio }),
    proposing: proposal.isPending,
    change: (words, step) =>
      save.mutate({ words, change: (all) => all.map((one) => (one.id === step.id ? step : one)) }),
    remove: (step) =>
      save.mutate({
        words: `remove ${STEP_NAMES[step.kind].toLowerCase()}`,
        change: (all) => all.filter((one) => one.id !== step.id),
      }),
    move: (step, by) =>
      save.mutate({
        words: `move ${STEP_NAMES[step.kind].toLowerCase()}`,
        change: (all) => moved(all, step, by),
      }),
    undo: revisions.undo,
    redo: revisions.redo,
  };
}

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
