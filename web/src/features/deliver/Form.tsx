import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { emojiQuery, fillFields, type Field, type ReadyFit } from "../../api/deliveryQueries";
import { Problem } from "../../ui/Trouble";
import { useLater } from "../../ui/useLater";

const BOX = "w-full border border-ink bg-sheet px-2 py-1 text-[13px]";

/** What the upload form of a place asks for, kept as it is left. What was typed here counts, not what comes back. */
export function Form({ workspace, fit }: { workspace: string; fit: ReadyFit }) {
  const queries = useQueryClient();
  const [typed, setTyped] = useState(() =>
    Object.fromEntries(fit.fields.map((field) => [field.name, field.value])),
  );
  const alternative = fit.fields.find((field) => field.kind === "alternative text");
  const keep = useMutation({
    scope: { id: `form ${fit.fit}` }, // one after the other
    mutationFn: (all: Record<string, string>) => {
      const values = { ...all };
      if (alternative) delete values[alternative.name];
      return fillFields(workspace, fit.fit, values, alternative ? (all[alternative.name] ?? "") : null);
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace, "ready"] }),
  });
  const kept = useRef(typed);
  const done = (all: Record<string, string>) => {
    if (JSON.stringify(all) === JSON.stringify(kept.current)) return;
    kept.current = all;
    keep.mutate(all);
  };
  return (
    <section aria-label={`The form of ${fit.placement_name}`}>
      <h3 className="text-[13px] font-semibold">The form asks for</h3>
      <div className="mt-2 grid gap-3">
        {fit.fields.map((field) => (
          <Entry
            key={field.name}
            workspace={workspace}
            field={field}
            value={typed[field.name] ?? ""}
            type={(value) => setTyped({ ...typed, [field.name]: value })}
            done={(value) => done({ ...typed, [field.name]: value })}
          />
        ))}
      </div>
      {keep.error && <Problem message={keep.error.message} onDismiss={keep.reset} />}
    </section>
  );
}

interface EntryProps {
  workspace: string;
  field: Field;
  value: string;
  type: (value: string) => void;
  done: (value: string) => void;
}

function Entry({ workspace, field, value, type, done }: EntryProps) {
  const id = `field-${field.name}`;
  const shared = {
    id,
    value,
    "aria-describedby": `${id}-said`,
    onBlur: () => done(value),
    className: BOX,
  };
  return (
    <div className="text-[13px]">
      <label htmlFor={id} className="flex items-baseline justify-between gap-3">
        <span>
          {field.label}
          {field.required && <span className="text-soft"> (required)</span>}
        </span>
        {field.max_length && (
          <span
            className={`figure text-[12px] ${value.length > field.max_length ? "text-risky" : "text-soft"}`}
          >
            {value.length} of {field.max_length}
          </span>
        )}
      </label>
      {field.kind === "alternative text" ? (
        <textarea {...shared} rows={2} onChange={(event) => type(event.target.value)} />
      ) : (
        <input
          {...shared}
          onChange={(event) => type(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && done(value)}
        />
      )}
      {field.kind === "tag" && (
        <Suggestions
          workspace={workspace}
          words={value}
          choose={(name) => {
            type(name);
            done(name);
          }}
        />
      )}
      <p id={`${id}-said`} className="text-[12px] text-soft">
        {field.trouble ? (
          <span className="font-semibold text-risky">{field.trouble}</span>
        ) : field.kind === "alternative text" ? (
          "What is seen, for those who cannot see it. It stays with the piece."
        ) : (
          ""
        )}
      </p>
    </div>
  );
}

/** Standard emoji whose names hold what was typed. */
function Suggestions({
  workspace,
  words,
  choose,
}: {
  workspace: string;
  words: string;
  choose: (name: string) => void;
}) {
  const asked = useLater(words.trim());
  const found = useQuery({ ...emojiQuery(workspace, asked), enabled: asked.length > 1 });
  const offered = (found.data ?? []).filter((one) => one.name !== words.trim()).slice(0, 6);
  if (asked.length < 2 || offered.length === 0) return null;
  return (
    <div role="group" aria-label="Standard emoji" className="mt-1 flex flex-wrap gap-x-3">
      {offered.map((one) => (
        <button
          key={one.name}
          type="button"
          onClick={() => choose(one.name)}
          className="min-h-6 text-[12px] text-measure hover:underline"
        >
          {one.text} {one.name}
        </button>
      ))}
    </div>
  );
}
