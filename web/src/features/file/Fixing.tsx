import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { fixFile, tryQuery, type Candidate, type Candidates, type Wish } from "../../api/candidateQueries";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/fields";
import { Slider } from "../../ui/Slider";
import { Problem } from "../../ui/Trouble";

interface Props {
  workspace: string;
  fit: string;
  data: Candidates;
  show: (one: Candidate) => void;
}

type Fixed = Required<Wish>;

const FREE: Fixed = { format: null, chroma: null, quality: null, colours: null, path: "/", title: "" };
const USUAL_QUALITY = 75;
const USUAL_COLOURS = 64;

/** What somebody who knows better fixes of the file, with what it costs before it is taken. */
export function Fixing({ workspace, fit, data, show }: Props) {
  const fixed = { ...FREE, ...data.wish };
  const [wish, setWish] = useState(fixed);
  const queries = useQueryClient();
  const offer = data.formats.find((one) => one.format === wish.format);
  const free = isFree(wish);
  const trying = useQuery({ ...tryQuery(workspace, fit, data.key, wish), enabled: !free });
  const fix = useMutation({
    mutationFn: (next: Wish) => fixFile(workspace, fit, next),
    onSuccess: () => queries.invalidateQueries({ queryKey: [workspace] }),
  });
  const format = (next: string) =>
    setWish({ ...FREE, format: next === "any" ? null : (next as Fixed["format"]) });
  return (
    <section aria-labelledby="fixing" className="text-[13px]">
      <h2 id="fixing" className="border-b-2 border-strong pb-1.5 text-[14px]">
        Fix it yourself
      </h2>
      <Choice
        label="Format"
        options={[
          ["any", "the best"],
          ...data.formats.map((one): [string, string] => [one.format, one.label]),
        ]}
        value={wish.format ?? "any"}
        choose={format}
      />
      {offer?.chroma && (
        <Choice
          label="Colour"
          options={[
            ["any", "the better"],
            ["4:4:4", "full, 4:4:4"],
            ["4:2:0", "half, 4:2:0"],
          ]}
          value={wish.chroma ?? "any"}
          choose={(chroma) =>
            setWish({ ...wish, chroma: chroma === "any" ? null : (chroma as Fixed["chroma"]) })
          }
        />
      )}
      {offer?.quality && (
        <Number
          label="Quality"
          value={wish.quality}
          usual={USUAL_QUALITY}
          least={1}
          most={100}
          set={(quality) => setWish({ ...wish, quality })}
        />
      )}
      {offer?.colours && (
        <Number
          label="Colours"
          value={wish.colours}
          usual={USUAL_COLOURS}
          least={2}
          most={256}
          set={(colours) => setWish({ ...wish, colours })}
        />
      )}
      {!free && (
        <div aria-live="polite" className="mt-2 min-h-6">
          {trying.error ? (
            <Problem message={trying.error.message} />
          ) : trying.data ? (
            <p className={trying.isPlaceholderData ? "opacity-50" : ""}>
              {trying.data.label}, {trying.data.words}: <span className="figure">{trying.data.weight}</span>,
              looks <span className="figure">{Math.round(trying.data.score ?? 0)}</span> of 100{" "}
              <button
                type="button"
                className="min-h-6 font-semibold text-measure hover:underline"
                onClick={() => show(trying.data)}
              >
                See it
              </button>
            </p>
          ) : (
            <p className="text-soft">Trying it…</p>
          )}
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-3">
        {!free && (
          <Button
            disabled={fix.isPending || !!trying.error || JSON.stringify(wish) === JSON.stringify(fixed)}
            onClick={() => fix.mutate(wish)}
          >
            Deliver it like this
          </Button>
        )}
        {!isFree(fixed) && (
          <Button
            look="bare"
            disabled={fix.isPending}
            onClick={() => {
              setWish(FREE);
              fix.mutate(FREE);
            }}
          >
            Let Fitzle choose again
          </Button>
        )}
      </div>
      {fix.error && <Problem message={fix.error.message} />}
    </section>
  );
}

const isFree = ({ format, chroma, quality, colours }: Wish) =>
  [format, chroma, quality, colours].every((value) => value === null);

interface NumberProps {
  label: string;
  value: number | null;
  usual: number;
  least: number;
  most: number;
  set: (value: number | null) => void;
}

/** A figure that Fitzle looks for, or that somebody fixes. */
function Number({ label, value, usual, least, most, set }: NumberProps) {
  return (
    <>
      <Choice
        label={label}
        options={[
          ["any", "as the limit allows"],
          ["fixed", "fixed"],
        ]}
        value={value === null ? "any" : "fixed"}
        choose={(next) => set(next === "any" ? null : usual)}
      />
      {value !== null && (
        <Slider label={label} least={least} most={most} value={value} words={String} change={set} />
      )}
    </>
  );
}
