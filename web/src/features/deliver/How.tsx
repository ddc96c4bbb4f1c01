import type { ReactNode } from "react";

import type { Ready } from "../../api/deliveryQueries";

export interface Choices {
  way: "zip" | "folder" | "upload";
  folder: string;
  flat: boolean;
}

interface Props {
  ready: Ready;
  how: Choices;
  set: (how: Choices) => void;
}

/** The ways to hand over: a ZIP, a folder of the server, an upload; and how the files lie in it. */
export function How({ ready, how, set }: Props) {
  return (
    <>
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">How</h2>
      <fieldset className="mt-3 grid gap-2 text-[13px]">
        <legend className="sr-only">The way</legend>
        <Option name="way" on={how.way === "zip"} choose={() => set({ ...how, way: "zip" })}>
          Save them as one ZIP
        </Option>
        {ready.folders.map((folder) => (
          <Option
            key={folder}
            name="way"
            on={how.way === "folder" && how.folder === folder}
            choose={() => set({ ...how, way: "folder", folder })}
          >
            Into the folder <b className="font-semibold">{folder}</b> of this server
            <span className="block text-soft">Files that are the same are left alone.</span>
          </Option>
        ))}
        {ready.uploads.length > 0 && (
          <Option name="way" on={how.way === "upload"} choose={() => set({ ...how, way: "upload" })}>
            Upload them and see what is shown
            <span className="block text-soft">{ready.uploads.join(", ")}</span>
          </Option>
        )}
      </fieldset>
      {how.way !== "upload" && (
        <fieldset className="mt-4 grid gap-2 border-t border-hairline pt-3 text-[13px]">
          <legend className="sr-only">Folders</legend>
          <Option name="flat" on={!how.flat} choose={() => set({ ...how, flat: false })}>
            A folder for each destination
          </Option>
          <Option name="flat" on={how.flat} choose={() => set({ ...how, flat: true })}>
            All side by side
          </Option>
        </fieldset>
      )}
    </>
  );
}

interface OptionProps {
  name: string;
  on: boolean;
  choose: () => void;
  children: ReactNode;
}

function Option({ name, on, choose, children }: OptionProps) {
  return (
    <label className="grid min-h-6 cursor-pointer grid-cols-[18px_1fr] items-start gap-2">
      <input
        type="radio"
        name={name}
        checked={on}
        onChange={choose}
        className="mt-[3px] accent-[var(--ink)]"
      />
      <span>{children}</span>
    </label>
  );
}
