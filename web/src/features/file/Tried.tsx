import type { Candidate, Candidates } from "../../api/candidateQueries";

interface Props {
  data: Candidates;
  shown: Candidate;
  show: (one: Candidate) => void;
}

/** Everything that was tried: what it was told, its weight against the limit, its looks, the time it took. */
export function Tried({ data, shown, show }: Props) {
  return (
    <table className="w-full text-left text-[13px]">
      <thead>
        <tr className="border-b-2 border-strong font-heading">
          <th className="pb-1.5 font-semibold">Tried</th>
          <th className="pb-1.5 pl-3 text-right font-semibold">Weight</th>
          <th className="pb-1.5 pl-3 text-right font-semibold">Looks</th>
          <th className="pb-1.5 pl-3 text-right font-semibold max-sm:hidden">Took</th>
        </tr>
      </thead>
      <tbody>
        {data.candidates.map((one) => (
          <Row
            key={one.format + JSON.stringify(one.settings)}
            one={one}
            shown={same(one, shown)}
            show={show}
          />
        ))}
      </tbody>
    </table>
  );
}

export const same = (one: Candidate, other: Candidate) =>
  one.format === other.format && JSON.stringify(one.settings) === JSON.stringify(other.settings);

function Row({ one, shown, show }: { one: Candidate; shown: boolean; show: (one: Candidate) => void }) {
  return (
    <tr className={`border-b border-hairline align-baseline ${one.under ? "" : "text-soft"}`}>
      <td className="py-0.5">
        <button
          type="button"
          aria-pressed={shown}
          onClick={() => show(one)}
          className={`min-h-7 border-l-2 pl-2 text-left hover:text-measure ${shown ? "border-measure" : "border-transparent"}`}
        >
          <span className={one.chosen ? "font-semibold" : ""}>{one.label}</span>, {one.words}
          {one.chosen && <span className="ml-2 font-semibold text-fits">delivered</span>}
        </button>
      </td>
      <td className={`figure pl-3 text-right whitespace-nowrap ${one.under ? "" : "text-refused"}`}>
        {one.weight}
        {!one.under && " over"}
      </td>
      <td className="figure pl-3 text-right">{one.score === null ? "—" : Math.round(one.score)}</td>
      <td className="figure pl-3 text-right whitespace-nowrap text-soft max-sm:hidden">
        {one.seconds === null ? "" : `${one.seconds.toFixed(2)} s`}
      </td>
    </tr>
  );
}
