import { ChevronRight } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";

import type { ReadyFit } from "../../api/deliveryQueries";
import { proofUrl } from "../../api/queries";
import { State } from "../../ui/State";
import { SteadyImage } from "../../ui/SteadyImage";
import { Form } from "./Form";
import { HandingFields } from "./HandingFields";

const THUMB_PX = 64;

interface Props {
  workspace: string;
  fit: ReadyFit;
  uploads: boolean;
  chosen: boolean;
  toggle: () => void;
}

/** One place: its picture, the names that its files get, and, opened, what goes with them. */
export function ReadyRow({ workspace, fit, uploads, chosen, toggle }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <li className="border-b border-hairline py-2.5">
      <div className="grid grid-cols-[20px_64px_minmax(0,1fr)_auto] items-center gap-x-4 max-sm:grid-cols-[20px_48px_minmax(0,1fr)]">
        <input
          type="checkbox"
          checked={chosen}
          onChange={toggle}
          aria-label={`Deliver ${fit.placement_name}`}
          className="size-4 accent-[var(--ink)]"
        />
        <SteadyImage
          src={proofUrl(workspace, fit.fit, fit.picture, THUMB_PX * 2)}
          alt=""
          style={{ background: fit.ground }}
          className="max-h-12 max-w-full justify-self-center object-contain"
        />
        <div className="min-w-0">
          <div className="flex flex-wrap items-baseline gap-x-3">
            <Link
              to={`/w/${workspace}/fits/${fit.fit}`}
              className="text-[13px] font-semibold hover:underline"
            >
              {fit.placement_name}
            </Link>
            <span className="text-[12px] text-soft">
              {uploads && fit.upload ? fit.upload : fit.destination_name}
            </span>
          </div>
          <ul className="text-[13px] leading-[19px]">
            {(fit.files.length > 4 && !open ? fit.files.slice(0, 1) : fit.files).map((file) => (
              <li key={file.name} className="flex flex-wrap gap-x-3 break-all">
                <span>
                  <span className="text-soft">{file.folder && `${file.folder}/`}</span>
                  {file.name}
                </span>
                <span className="figure text-[12px] text-measure">
                  {file.width ? `${file.width} × ${file.height}` : ""}
                </span>
                <span className="figure text-[12px] text-soft">{file.weight}</span>
              </li>
            ))}
            {fit.files.length > 4 && !open && (
              <li className="text-soft">and {fit.files.length - 1} more of this set</li>
            )}
          </ul>
          {fit.trouble && !open && <p className="text-[12px] font-semibold text-risky">{fit.trouble}</p>}
        </div>
        <div className="flex items-center gap-4 max-sm:col-start-3">
          <State state={fit.state} why={fit.changed ? undefined : "handed over"} />
          <button
            type="button"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
            className="inline-flex min-h-7 items-center gap-1 text-[13px] text-soft hover:text-ink"
          >
            <ChevronRight aria-hidden size={14} className={open ? "rotate-90" : ""} />
            {fit.fields.length ? "Form and more" : "More"}
          </button>
        </div>
      </div>
      {open && (
        <div className="mt-3 ml-9 grid gap-x-10 gap-y-5 pb-2 md:grid-cols-2">
          {fit.fields.length > 0 && <Form workspace={workspace} fit={fit} />}
          <HandingFields workspace={workspace} fit={fit} />
        </div>
      )}
    </li>
  );
}
