import type { House } from "./HouseStyleScreen";
import { Section } from "../../ui/Section";

/** Words in each colour on each other one, with their contrast. */
export function Pairs({ house }: { house: House }) {
  const { colours, contrasts, readings } = house.style;
  if (colours.length === 0)
    return (
      <Section title="What can be read on what">
        <p className="py-2 text-[13px] text-soft">
          Add colours, and see here which can be read on one another.
        </p>
      </Section>
    );
  return (
    <Section title="What can be read on what">
      <div className="overflow-x-auto">
        <table className="mt-2 border-separate border-spacing-0.5 text-[12px]">
          <caption className="sr-only">Contrast of words in the column’s colour on the row’s colour</caption>
          <thead>
            <tr>
              <th scope="col" className="pr-2 text-left font-normal text-soft">
                on
              </th>
              {colours.map((colour) => (
                <th
                  key={colour.hex}
                  scope="col"
                  className="max-w-20 truncate px-1 pb-1 font-normal text-soft"
                >
                  {colour.name || colour.hex}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {colours.map((ground, row) => (
              <tr key={ground.hex}>
                <th scope="row" className="max-w-28 truncate pr-2 text-left font-normal text-soft">
                  {ground.name || ground.hex}
                </th>
                {colours.map((ink, column) => {
                  const ratio = contrasts[row]?.[column] ?? 1;
                  const said = readings[row]?.[column];
                  return (
                    <td key={ink.hex} className="p-0 align-top">
                      {row !== column && (
                        <>
                          {/* Drawn by the style sheet: a sample of what cannot be read is no text to be read. */}
                          <span
                            aria-hidden
                            className="flex h-9 w-20 items-center justify-center font-heading text-[17px] font-bold before:content-['Aa']"
                            style={{ background: ground.hex, color: ink.hex }}
                          />
                          <span
                            className={`figure block text-center ${said === "reads" ? "text-fits" : "text-soft"}`}
                          >
                            {ratio.toFixed(1)} {said}
                          </span>
                        </>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-[12px] text-soft">
        4.5 : 1 reads at any size, 3 : 1 only as large words or a mark (WCAG 2.2).
      </p>
    </Section>
  );
}
