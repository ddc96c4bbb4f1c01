import type { ReactNode } from "react";

import type { Schemas } from "../../../api/client";
import { useDraft, type Draft } from "./useDraft";

interface Props {
  workspace: string;
  sheet: Schemas["SheetOut"];
  children: (draft: Draft) => ReactNode;
}

/** A sheet that came of words, a kind or a screenshot, and can be changed before it counts. */
export function WithDraft({ workspace, sheet, children }: Props) {
  return children(useDraft(workspace, sheet, true));
}
