import { Link } from "react-router";

import type { FitOut } from "../../api/client";
import { proofUrl } from "../../api/queries";
import { Masked } from "../../ui/Mask";
import { State } from "../../ui/State";
import { SteadyImage } from "../../ui/SteadyImage";
import { Elsewhere } from "./Elsewhere";
import { ToRun } from "./ToRun";

/** All placements of the piece, each live and with its state; and the way into others. */
export function Rail({ fit, workspace }: { fit: FitOut; workspace: string }) {
  const alone = fit.rail.length < 2;
  return (
    <section aria-labelledby="rail" className="mt-6 pl-3.5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-2">
        <h2 id="rail" className="text-[14px]">
          {alone ? "It stands nowhere else" : fit.row ? "The same row elsewhere" : "The same piece elsewhere"}
        </h2>
        {!fit.row && (
          <span className="flex flex-wrap gap-2">
            <ToRun fit={fit} workspace={workspace} />
            <Elsewhere fit={fit} workspace={workspace} />
          </span>
        )}
      </div>
      <ul className={alone ? "hidden" : "mt-1 flex overflow-x-auto"}>
        {fit.rail.map((entry) => (
          <li key={entry.id} className="shrink-0">
            <Link
              to={`/w/${workspace}/fits/${entry.id}`}
              aria-current={entry.id === fit.id ? "page" : undefined}
              className="group block outline-offset-[-2px]"
            >
              <span className="flex h-20 items-end border-b-2 border-strong pr-6 pt-2">
                <Masked
                  mask={entry.mask}
                  style={{ width: entry.drawn_width, height: entry.drawn_height, background: entry.page }}
                >
                  <SteadyImage
                    src={proofUrl(workspace, entry.id, entry.key, entry.drawn_width * 2)}
                    alt=""
                    className="block h-full w-full max-w-none"
                  />
                </Masked>
              </span>
              <span className="block min-w-30 pt-1.5 pr-5">
                <span
                  className={`block text-[13px] font-semibold group-hover:underline ${entry.id === fit.id ? "text-measure" : ""}`}
                >
                  {entry.placement_name}
                </span>
                <span className="figure block text-measure">{entry.size}</span>
                <State state={entry.state} />
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
