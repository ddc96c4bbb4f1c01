import { Button } from "../../../ui/Button";
import { Effects } from "../Effects";
import type { Draft } from "./useDraft";

interface Props {
  workspace: string;
  place: string;
  draft: Draft;
  busy: boolean;
  save: () => void;
}

/** What was changed and does not count yet: what it would do to what stands there, and the two ways on. */
export function Unsaved({ workspace, place, draft, busy, save }: Props) {
  return (
    <>
      {draft.sound && <Effects workspace={workspace} place={place} sheet={draft.sheet} />}
      <section
        aria-label="Not used yet"
        className="keeps-the-bottom sticky bottom-0 z-20 mt-6 flex flex-wrap items-center gap-x-4 gap-y-2 border-t-2 border-strong bg-paper py-3"
      >
        <Button look="next" disabled={!draft.sound || busy} onClick={save}>
          Use this sheet
        </Button>
        <Button look="bare" onClick={draft.reset}>
          Leave it as it was
        </Button>
        <span className="text-[13px] text-soft">
          {draft.sound ? "Changed, and not used yet." : "It cannot be used as it is: see above."} Ctrl + Z
          takes the last change back.
        </span>
      </section>
    </>
  );
}
