import { Another, Fields, MaybeFigure, Remove, Words, withEntry } from "./parts";
import type { Draft } from "./useDraft";

/** What the upload form asks for beside the file. */
export function UploadFields({ draft }: { draft: Draft }) {
  const all = draft.sheet.fields ?? [];
  const set = (at: number, next: (typeof all)[number] | null) =>
    draft.set({ fields: withEntry(all, at, next) });
  const free = () => {
    let number = all.length + 1;
    while (all.some((one) => one.name === `field-${number}`)) number += 1;
    return `field-${number}`;
  };
  return (
    <>
      {all.map((one, at) => (
        <Fields key={one.name}>
          <Words
            label={`What field ${at + 1} is called`}
            value={one.label}
            change={(label) => set(at, { ...one, label })}
          />
          <MaybeFigure
            label={`Letters of ${one.label}`}
            words="at most"
            unit="letters"
            value={one.max_length}
            change={(max_length) => set(at, { ...one, max_length })}
          />
          <label className="text-[13px]">
            <input
              type="checkbox"
              checked={one.required ?? false}
              onChange={(event) => set(at, { ...one, required: event.target.checked })}
            />{" "}
            has to be filled
          </label>
          <Remove words={`Without ${one.label}`} press={() => set(at, null)} />
        </Fields>
      ))}
      <Another
        words="Another field"
        press={() => draft.set({ fields: [...all, { name: free(), label: "Description", required: false }] })}
      />
    </>
  );
}
