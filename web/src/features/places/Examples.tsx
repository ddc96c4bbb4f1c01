const EXAMPLES = [
  "Logo, at most 300 x 80 px, PNG with transparent background, 50 KB",
  "Square picture, at least 400 x 400 px, JPG, shown in a circle at 48 px",
  "1200 x 630 px, JPG or PNG, up to 2 MB",
];

/** Words that somebody may begin with. */
export function Examples({ choose }: { choose: (words: string) => void }) {
  return (
    <ul className="mt-4 text-[14px]">
      {EXAMPLES.map((words) => (
        <li key={words}>
          <button
            type="button"
            className="min-h-7 text-left text-measure hover:underline"
            onClick={() => choose(words)}
          >
            {words}
          </button>
        </li>
      ))}
    </ul>
  );
}
