import type { FitOut } from "../../api/client";
import { proofUrl } from "../../api/queries";
import { Masked } from "../../ui/Mask";
import { SteadyImage } from "../../ui/SteadyImage";
import { useWindowWidth } from "../../ui/useWindow";

const SEEN_WIDEST_PX = 560;
const MARGINS_PX = 100;

/** The widest that one is drawn: real size where the window has room. */
const useWidest = () => Math.min(SEEN_WIDEST_PX, useWindowWidth() - MARGINS_PX);

/** The fit at the sizes and on the grounds where it is seen; real size where the column has room. */
export function Seen({ fit, workspace }: { fit: FitOut; workspace: string }) {
  const widest = useWidest();
  if (fit.sheet.seen.length === 0) return null;
  return (
    <section aria-labelledby="seen" className="mt-5 pl-3.5">
      <h2 id="seen" className="text-[14px]">
        As people will see it
      </h2>
      <div className="mt-1 flex flex-wrap items-end gap-x-6 gap-y-3">
        {fit.sheet.seen.map((seen) => (
          <figure key={seen.name}>
            <div className="flex flex-wrap">
              {fit.sheet.grounds.map((ground) => (
                <OnGround
                  key={ground}
                  fit={fit}
                  workspace={workspace}
                  ground={ground}
                  width={Math.min(seen.width, widest)}
                />
              ))}
            </div>
            <figcaption className="figure pt-1 text-soft">
              {seen.name}, {seen.width} px{seen.width > widest ? " (drawn smaller here)" : ""}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}

interface OnGroundProps {
  fit: FitOut;
  workspace: string;
  ground: string;
  width: number;
}

function OnGround({ fit, workspace, ground, width }: OnGroundProps) {
  const { veil } = fit.sheet;
  const height = (width * fit.height) / fit.width;
  return (
    <span style={{ background: ground }} className="p-2.5">
      <Masked mask={fit.mask} className="relative" style={{ width, height }}>
        <SteadyImage
          src={proofUrl(workspace, fit.id, fit.key, width * 2)}
          alt={`On ${ground}`}
          className="block h-full w-full max-w-none"
        />
        {veil && (
          <span className="absolute inset-0" style={{ background: veil.colour, opacity: veil.opacity }} />
        )}
      </Masked>
    </span>
  );
}
