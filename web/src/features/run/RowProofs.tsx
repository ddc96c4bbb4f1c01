import { rowProofUrl, type RowProblem, type RunPlace } from "../../api/runQueries";
import { STATES } from "../../ui/State";
import { SteadyImage } from "../../ui/SteadyImage";
import { TALL_PX, widthOf } from "./measures";
import { seenKey, type Seen } from "./useSeen";

interface Props {
  workspace: string;
  piece: string;
  row: string;
  places: RunPlace[];
  seen: Seen;
  problems: Map<string, RowProblem[]>;
  coming: boolean;
  open: (placement: string) => void;
  mayChange: boolean;
}

/** How a row looks in each place, standing on the line of the row, and what is said of it. */
export function RowProofs({ workspace, piece, row, places, seen, problems, coming, open, mayChange }: Props) {
  return places.map((place) => {
    const one = seen.get(seenKey(row, place.placement));
    const said = problems.get(seenKey(row, place.placement)) ?? [];
    const width = widthOf(place);
    const proof = (
      <span className="flex items-end justify-start" style={{ height: TALL_PX, width }}>
        {one ? (
          <SteadyImage
            src={rowProofUrl(workspace, piece, one, 2 * Math.round(width))}
            alt={`${place.name}: ${wordsOf(one.state, said, coming)}`}
            className="checker light-checker block max-h-full max-w-full"
          />
        ) : (
          <span
            className="block bg-gauge"
            style={{ width, height: Math.min(TALL_PX, (width * place.height) / place.width) }}
          />
        )}
      </span>
    );
    return (
      <div key={place.placement} role="gridcell" className="px-2 pt-2">
        {mayChange && one ? (
          <button
            type="button"
            tabIndex={-1}
            aria-label={`Change row by hand in ${place.name}`}
            title={`Change this row by hand in ${place.name}`}
            onClick={() => open(place.placement)}
            className="block hover:outline-2 hover:outline-offset-2 hover:outline-measure"
          >
            {proof}
          </button>
        ) : (
          proof
        )}
        <Said state={one?.state} said={said} coming={coming} width={width} />
      </div>
    );
  });
}

interface SaidProps {
  state: keyof typeof STATES | undefined;
  said: RowProblem[];
  coming: boolean;
  width: number;
}

/** The state of a row in a place, as a shape, a colour and a word. */
function Said({ state, said, coming, width }: SaidProps) {
  const worst = said[0];
  const shown = worst ? worst.severity : state;
  const style = { width: Math.max(width, 84) };
  if (!shown || (shown === "working" && !coming))
    return (
      <span className="block truncate text-[12px] leading-[18px] text-soft" style={style}>
        {shown ? "no file yet" : ""}
      </span>
    );
  const { symbol: Symbol, colour } = STATES[shown];
  const words = worst ? worst.words : shown === "working" ? "to be made" : shown;
  return (
    <span
      title={said.map((one) => one.words).join("; ") || undefined}
      className={`flex items-center gap-1 text-[12px] leading-[18px] ${colour}`}
      style={style}
    >
      <Symbol aria-hidden size={12} strokeWidth={2.6} className="shrink-0" />
      <span className="truncate">{words}</span>
    </span>
  );
}

function wordsOf(state: string, said: RowProblem[], coming: boolean): string {
  if (said.length) return said.map((one) => `${one.severity}, ${one.words}`).join("; ");
  return state === "working" ? (coming ? "to be made" : "no file yet") : state;
}
