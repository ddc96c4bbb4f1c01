import { Choice } from "../../../ui/fields";
import { Fields, MaybeFigure } from "./parts";
import type { Draft, Sheet } from "./useDraft";

type Exact = Extract<Sheet["size"], { width: number }>;
type Range = Exclude<Sheet["size"], Exact>;

export const isExact = (size: Sheet["size"]): size is Exact => "width" in size;

/** One size, or a range of them. */
export function SizeFields({ draft }: { draft: Draft }) {
  const { size } = draft.sheet;
  const set = (next: Sheet["size"]) => draft.set({ size: next });
  const drawn = draft.shown.size;
  return (
    <>
      <Choice
        label="It takes"
        options={[
          ["exact", "one size"],
          ["range", "a range"],
        ]}
        value={isExact(size) ? "exact" : "range"}
        choose={(kind) =>
          set(
            kind === "exact"
              ? { width: drawn.width, height: drawn.height }
              : { recommended: { width: drawn.width, height: drawn.height } },
          )
        }
      />
      {isExact(size) ? (
        <Fields>
          <MaybeFigure
            label="Width"
            unit="px wide"
            value={size.width}
            change={(width) => width && set({ ...size, width })}
          />
          <MaybeFigure
            label="Height"
            unit="px high"
            value={size.height}
            change={(height) => height && set({ ...size, height })}
          />
        </Fields>
      ) : (
        <RangeFields size={size} set={set} />
      )}
    </>
  );
}

function RangeFields({ size, set }: { size: Range; set: (size: Range) => void }) {
  const best = size.recommended;
  const pair = (side: "width" | "height", value: number | null) => {
    if (value === null) return set({ ...size, recommended: null });
    const both = best ?? { width: value, height: value };
    set({ ...size, recommended: { ...both, [side]: value } });
  };
  return (
    <>
      {(["min", "max"] as const).map((which) => (
        <Fields key={which}>
          <span className="w-16 text-[13px] text-soft">{which === "min" ? "at least" : "at most"}</span>
          {(["width", "height"] as const).map((side) => (
            <MaybeFigure
              key={side}
              label={`${which === "min" ? "Least" : "Most"} ${side}`}
              unit={side === "width" ? "px wide" : "px high"}
              value={size[`${which}_${side}`]}
              change={(value) => set({ ...size, [`${which}_${side}`]: value })}
            />
          ))}
        </Fields>
      ))}
      <Fields>
        <span className="w-16 text-[13px] text-soft">best at</span>
        <MaybeFigure
          label="Recommended width"
          unit="px wide"
          value={best?.width}
          change={(value) => pair("width", value)}
        />
        <MaybeFigure
          label="Recommended height"
          unit="px high"
          value={best?.height}
          change={(value) => pair("height", value)}
        />
      </Fields>
      <Fields>
        <span className="w-16 text-[13px] text-soft">shape</span>
        <input
          key={size.aspect ?? ""}
          aria-label="Shape"
          placeholder="any"
          defaultValue={size.aspect ?? ""}
          onBlur={(event) => {
            const aspect = event.target.value.replace(/\s/g, "").replace(/[×x/]/, ":") || null;
            if (aspect !== (size.aspect ?? null)) set({ ...size, aspect });
          }}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          className="figure min-h-6 w-16 border-b border-ink bg-transparent text-measure placeholder:text-soft"
        />
        <span className="text-[12px] text-soft">like 16:9</span>
      </Fields>
    </>
  );
}
