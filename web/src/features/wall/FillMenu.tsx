import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";

import { placeArtwork, takeAway } from "../../api/actions";
import { artworkQuery, artworkUrl, startingPointsQuery, isChoosable } from "../../api/queries";
import { BringIn } from "../../ui/BringIn";
import { Button } from "../../ui/Button";
import { FindWords } from "../../ui/FindWords";
import { Problem } from "../../ui/Trouble";
import { useLater } from "../../ui/useLater";
import { StartingPoints } from "./StartingPoints";

interface Props {
  workspace: string;
  targets: string[];
  label: string;
  about: string;
  fit?: string | null;
  quiet?: boolean;
}

/** The keyboard's way of dropping: choose artwork that is here, or a file, for these placements. */
export function FillMenu({ workspace, targets, label, about, fit, quiet }: Props) {
  const [open, setOpen] = useState(false);
  const queries = useQueryClient();
  const only = onlyOf(targets);
  // What the menu shows is fetched when it is pointed at, so that its first entry is there to take the focus.
  const prepare = () => {
    void queries.prefetchQuery(artworkQuery(workspace, CHOOSABLE));
    if (only) void queries.prefetchQuery(startingPointsQuery(workspace, only));
  };
  const colour = quiet ? "text-soft hover:text-measure" : "text-measure";
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${about}: ${label}`}
        onFocus={prepare}
        onPointerEnter={prepare}
        className={`min-h-6 text-[12px] font-semibold hover:underline ${colour}`}
      >
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={12}
          aria-label={`${about}: ${label}`}
          className="z-40 flex max-h-(--radix-popover-content-available-height) w-80 flex-col overflow-y-auto border border-ink bg-sheet"
        >
          <Choices workspace={workspace} targets={targets} fit={fit} close={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const CHOOSABLE = { put_away: false };

const onlyOf = (targets: string[]) =>
  targets.length === 1 && targets[0] !== "suited" ? targets[0] : undefined;

interface ChoicesProps {
  workspace: string;
  targets: string[];
  fit?: string | null;
  close: () => void;
}

function Choices({ workspace, targets, fit, close }: ChoicesProps) {
  const queries = useQueryClient();
  const [words, setWords] = useState("");
  const later = useLater(words);
  const artwork = useQuery(artworkQuery(workspace, later ? { ...CHOOSABLE, words: later } : CHOOSABLE));
  const done = async () => {
    close();
    await queries.invalidateQueries({ queryKey: [workspace, "wall"] });
  };
  const fill = useMutation({
    mutationFn: (id: string) => placeArtwork(workspace, id, targets),
    onSuccess: done,
  });
  const empty = useMutation({ mutationFn: () => takeAway(workspace, fit!), onSuccess: done });
  const trouble = fill.error ?? empty.error;
  const only = onlyOf(targets);
  return (
    <>
      {only && <StartingPoints workspace={workspace} placement={only} />}
      {only && <h3 className="px-3 pt-2 text-[13px]">Or put artwork there</h3>}
      <FindWords workspace={workspace} words={words} type={setWords} />
      <ul className="max-h-56 min-h-20 flex-1 overflow-y-auto">
        {artwork.data?.filter(isChoosable).map((entry) => (
          <li key={entry.id} className="border-b border-hairline">
            <button
              type="button"
              disabled={fill.isPending}
              onClick={() => fill.mutate(entry.id)}
              className="flex w-full items-center gap-3 px-3 py-1.5 text-left outline-offset-[-2px] hover:bg-paper"
            >
              <span
                className={`flex h-8 w-12 shrink-0 items-center justify-center ${entry.shown_on && entry.shown_on !== "#ffffff" ? "checker dark-checker" : "checker light-checker"}`}
              >
                <img src={artworkUrl(workspace, entry, 96)} alt="" className="max-h-8 max-w-12" />
              </span>
              <span className="truncate text-[13px]">{entry.name}</span>
            </button>
          </li>
        ))}
      </ul>
      <div className="flex shrink-0 flex-wrap items-center gap-2 p-3">
        <BringIn targets={targets} label="Choose a file" look="quiet" />
        {fit && (
          <Button look="quiet" onClick={() => empty.mutate()}>
            Empty it
          </Button>
        )}
        {only && (
          <Link
            to={`/w/${workspace}/places/${only}`}
            className="ml-auto inline-flex min-h-8 items-center text-[13px] font-semibold text-measure hover:underline"
          >
            Its sheet
          </Link>
        )}
        {trouble && <Problem message={trouble.message} />}
      </div>
    </>
  );
}
