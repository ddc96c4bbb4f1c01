import type { ReactNode } from "react";

import type { Schemas } from "../../api/client";

type Read = Schemas["ReadOut"];

interface Props {
  words: string;
  setWords: (words: string) => void;
  /** What the words became; of an earlier text while somebody types. */
  read: Read | undefined;
  readOf: string;
  autoFocus?: boolean;
}

const LETTERS = "block w-full p-3 text-[17px] leading-[30px] whitespace-pre-wrap break-words";

/** Words of a place, with a line under what was understood and a broken one under what was not. */
export function WordsField({ words, setWords, read, readOf, autoFocus }: Props) {
  const marked = read && readOf === words ? marks(words, read) : words;
  return (
    <div className="relative border border-ink bg-sheet">
      <div aria-hidden className={`${LETTERS} min-h-32`}>
        {marked}
        {"\u200b"}
      </div>
      <textarea
        aria-label="What the upload page says"
        autoFocus={autoFocus}
        value={words}
        maxLength={5000}
        spellCheck={false}
        onChange={(event) => setWords(event.target.value)}
        placeholder="Paste or type it: PNG, at least 150 x 150 px, max. 1 MB"
        className={`${LETTERS} absolute inset-0 h-full resize-none overflow-hidden bg-transparent text-transparent caret-[var(--ink)] placeholder:text-soft`}
      />
    </div>
  );
}

/** The text cut into pieces, each with its mark; the textarea above it has the same letters, unseen. */
function marks(words: string, read: Read): ReactNode[] {
  const wrong = read.problems.flatMap((one) => one.places);
  const all = [
    ...read.understood.map((one) => ({ ...one, look: "border-measure" })),
    ...read.not_understood.map((one) => ({ ...one, look: "border-risky border-dashed" })),
  ].sort((one, other) => one.start - other.start);
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const { start, end, look } of all) {
    const refused = wrong.some((place) => place.start < end && start < place.end);
    pieces.push(words.slice(at, start));
    pieces.push(
      <span key={start} className={`border-b-2 ${refused ? "border-refused border-dotted" : look}`}>
        {words.slice(start, end)}
      </span>,
    );
    at = end;
  }
  return [...pieces, words.slice(at)];
}
