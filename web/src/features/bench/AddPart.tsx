import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";

import type { ArtworkOut } from "../../api/client";
import { artworkQuery, artworkUrl, isChoosable } from "../../api/queries";
import { BringIn } from "../../ui/BringIn";
import { FindWords } from "../../ui/FindWords";
import { useLater } from "../../ui/useLater";
import type { Bench } from "./useBench";

/** What is dragged from the list of artwork to the proof. */
export const ARTWORK_TYPE = "application/x-fitzle-artwork";

const ROLES = ["headline", "second line", "byline", "badge", "shape"];
const WORDS: Record<string, string> = {
  headline: "Headline",
  "second line": "Second line",
  byline: "Byline",
  badge: "Badge",
  shape: "Shape",
};

/** Ways to bring a part into the piece: by role, or from the artwork that is there. */
export function AddPart({ bench }: { bench: Bench }) {
  return (
    <div className="flex flex-wrap gap-x-3 border-b border-hairline py-1.5 pl-3 text-[13px]">
      <Menu label="+ words or shape">
        {ROLES.map((role) => (
          <Popover.Close key={role} asChild>
            <button
              type="button"
              className="block min-h-7 w-full px-3 text-left hover:bg-paper"
              onClick={() => bench.add({ role })}
            >
              {WORDS[role]}
            </button>
          </Popover.Close>
        ))}
      </Menu>
      <Menu label="+ picture or mark">
        <ArtworkList bench={bench} choose={(artwork) => bench.add({ artwork })} />
      </Menu>
    </div>
  );
}

/** The artwork of the workspace to choose from. */
export function ArtworkList({ bench, choose }: { bench: Bench; choose: (artwork: string) => void }) {
  const [words, setWords] = useState("");
  const artwork = useQuery(artworkQuery(bench.workspace, { words: useLater(words), put_away: false }));
  const ready = (artwork.data ?? []).filter(isChoosable);
  return (
    <div className="w-70">
      <FindWords workspace={bench.workspace} words={words} type={setWords} />
      <ul className="grid max-h-80 grid-cols-3 gap-2 overflow-y-auto p-3">
        {ready.map((entry) => (
          <li key={entry.id}>
            <Popover.Close asChild>
              <button
                type="button"
                aria-label={entry.name}
                title={entry.name}
                onClick={() => choose(entry.id)}
                draggable
                onDragStart={(event) => event.dataTransfer.setData(ARTWORK_TYPE, entry.id)}
                className="flex h-16 w-full items-center justify-center border border-hairline p-1 hover:border-measure"
                style={{ background: entry.shown_on ?? undefined }}
              >
                <Picture bench={bench} entry={entry} />
              </button>
            </Popover.Close>
          </li>
        ))}
      </ul>
      <div className="border-t border-hairline p-3">
        <BringIn targets={[`into/${bench.fit!.id}/0.5/0.5`]} label="Bring in another" look="quiet" />
      </div>
    </div>
  );
}

function Picture({ bench, entry }: { bench: Bench; entry: ArtworkOut }) {
  return (
    <img
      src={artworkUrl(bench.workspace, entry, 160)}
      alt=""
      className="max-h-full max-w-full object-contain"
    />
  );
}

/** A word that opens a small sheet. */
export function Menu({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-7 font-semibold text-measure hover:underline">
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          className="z-30 min-w-44 border border-ink bg-sheet py-1 text-[13px]"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
