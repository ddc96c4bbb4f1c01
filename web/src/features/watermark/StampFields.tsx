import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";

import {
  changeWatermark,
  isMarking,
  watermarkQuery,
  type Stamp,
  type Watermark,
  type WatermarkChange,
} from "../../api/watermarkQueries";
import { Slider } from "../../ui/Slider";
import { Problem } from "../../ui/Trouble";

const CORNERS: Stamp["corner"][] = ["top left", "top right", "bottom left", "bottom right"];
const percent = (value: number) => `${Math.round(value)} %`;

/** How the mark stands in every picture: its corner, size, distance and opacity, and its versions. */
export function StampFields({ workspace, watermark }: { workspace: string; watermark: Watermark }) {
  const queries = useQueryClient();
  const { queryKey } = watermarkQuery(workspace, watermark.id);
  const save = useMutation({
    mutationFn: (change: WatermarkChange) => changeWatermark(workspace, watermark.id, change),
    onMutate: (change) => {
      if (change.stamp) queries.setQueryData(queryKey, { ...watermark, stamp: change.stamp as Stamp });
    },
    onSuccess: (newest) => queries.setQueryData(queryKey, newest),
    onError: () => queries.invalidateQueries({ queryKey }),
  });
  const { stamp } = watermark;
  const set = (fields: Partial<Stamp>) => save.mutate({ stamp: { ...stamp, ...fields } });
  return (
    <fieldset
      disabled={isMarking(watermark)}
      className="min-w-0 disabled:opacity-60"
      aria-label="How it stands"
    >
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">How it stands</h2>
      {save.error && <Problem message={save.error.message} onDismiss={save.reset} />}
      <div className="mt-4 flex items-start gap-4">
        <Corner corner={stamp.corner} choose={(corner) => set({ corner })} />
        <p className="text-[13px]">
          <b className="font-semibold">{stamp.corner}</b>
          <span className="block text-soft">the same part of every picture, whatever its size</span>
        </p>
      </div>
      <div className="mt-4 grid gap-y-1.5">
        <Slider
          label="size"
          value={stamp.size * 100}
          least={2}
          most={60}
          words={percent}
          change={(value) => set({ size: value / 100 })}
        />
        <Slider
          label="distance"
          value={stamp.distance * 100}
          most={25}
          words={percent}
          change={(value) => set({ distance: value / 100 })}
        />
        <Slider
          label="opacity"
          value={stamp.opacity * 100}
          least={5}
          most={100}
          words={percent}
          change={(value) => set({ opacity: value / 100 })}
        />
      </div>
      <p className="mt-1.5 text-[12px] text-soft">Size and distance go by the short side of each picture.</p>
      <Versions workspace={workspace} watermark={watermark} />
      <label className="mt-5 grid min-h-6 cursor-pointer grid-cols-[18px_1fr] items-start gap-2 border-t border-hairline pt-3 text-[13px]">
        <input
          type="checkbox"
          checked={watermark.keep_details}
          onChange={(event) => save.mutate({ keep_details: event.target.checked })}
          className="mt-[3px] accent-[var(--ink)]"
        />
        <span>
          Keep what the camera wrote
          <span className="block text-[12px] text-soft">
            Time, place and device; else the copies are without.
          </span>
        </span>
      </label>
    </fieldset>
  );
}

/** The four corners of a picture, of which the mark stands in one. */
function Corner({ corner, choose }: { corner: Stamp["corner"]; choose: (corner: Stamp["corner"]) => void }) {
  return (
    <div
      role="radiogroup"
      aria-label="Corner"
      className="grid h-[76px] w-[112px] shrink-0 grid-cols-2 border border-strong bg-sheet"
    >
      {CORNERS.map((one) => (
        <label
          key={one}
          className={`flex cursor-pointer p-1 hover:bg-gauge has-focus-visible:outline-2 has-focus-visible:outline-measure ${one!.startsWith("top") ? "items-start" : "items-end"} ${one!.endsWith("left") ? "justify-start" : "justify-end"}`}
        >
          <input
            type="radio"
            name="corner"
            aria-label={one}
            checked={one === corner}
            onChange={() => choose(one)}
            className="sr-only"
          />
          <span
            aria-hidden
            className={`block h-3 w-6 ${one === corner ? "bg-measure" : "border border-hairline"}`}
          />
        </label>
      ))}
    </div>
  );
}

/** The versions of the mark, each as it looks; every picture gets the one that shows on it. */
function Versions({ workspace, watermark }: { workspace: string; watermark: Watermark }) {
  const { versions } = watermark;
  return (
    <section aria-label="Versions" className="mt-5 border-t border-hairline pt-3 text-[13px]">
      <div className="flex flex-wrap gap-3">
        {versions.map((version, index) => (
          <figure key={version.id} className="w-[84px]">
            <span
              className={`flex h-14 items-center justify-center border border-hairline p-1.5 checker ${index === 0 ? "light-checker" : "dark-checker"}`}
            >
              <img
                src={`/api/workspaces/${workspace}/artwork/${version.id}/picture?width=160&key=${version.key}`}
                alt={version.name}
                className="max-h-full max-w-full"
              />
            </span>
            {watermark.entries.length > 0 && (
              <figcaption className="mt-1 text-[12px] text-soft">on {count(watermark, index)}</figcaption>
            )}
          </figure>
        ))}
      </div>
      {versions.length === 1 && watermark.mark && (
        <p className="mt-2 text-soft">
          It has one version.{" "}
          <Link
            to={`/w/${workspace}/artwork?chosen=${watermark.mark}`}
            className="font-semibold text-measure hover:underline"
          >
            Give it one for dark grounds
          </Link>{" "}
          and each picture gets the one that shows.
        </p>
      )}
      {versions.length > 1 && (
        <p className="mt-2 text-soft">Each picture gets the version that shows on it.</p>
      )}
    </section>
  );
}

const count = (watermark: Watermark, version: number) =>
  watermark.entries.filter((entry) => entry.contrast !== null && entry.version === version).length;
