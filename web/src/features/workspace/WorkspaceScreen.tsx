import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";

import { deleteWorkspace } from "../../api/actions";
import { sessionQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";
import { Tokens } from "./Tokens";

/** Everything of a workspace in one file, and an end to it that can be taken back. */
export function WorkspaceScreen() {
  const { workspace = "" } = useParams();
  const session = useQuery(sessionQuery());
  const name = session.data?.workspaces.find((one) => one.slug === workspace)?.name ?? "";
  return (
    <main className="px-7 pt-4 pb-10">
      <h1 className="text-[26px] leading-9">{name}</h1>
      <div className="mt-5 grid max-w-4xl gap-x-14 gap-y-9 md:grid-cols-2">
        <SaveEverything workspace={workspace} />
        <Tokens workspace={workspace} />
        <Delete workspace={workspace} name={name} />
      </div>
    </main>
  );
}

function SaveEverything({ workspace }: { workspace: string }) {
  return (
    <Section title="Save everything">
      <p className="my-3">
        One ZIP with the artwork as it came, places with their sheets, pieces, the house style, and every file
        that was handed over. “Bring in a saved workspace” makes the same workspace of it again, here or on
        another Fitzle.
      </p>
      <a
        href={`/api/workspaces/${workspace}/export`}
        download
        className="inline-flex min-h-8 items-center rounded-[3px] border border-ink px-3 py-1 text-[13px] font-semibold hover:bg-sheet"
      >
        Save everything
      </a>
    </Section>
  );
}

function Delete({ workspace, name }: { workspace: string; name: string }) {
  const [typed, setTyped] = useState("");
  const remove = useMutation({
    mutationFn: () => deleteWorkspace(workspace),
    onSuccess: () => location.assign("/"),
  });
  return (
    <Section title="Delete this workspace">
      <p className="my-3">
        Nobody sees it from then on. For 14 days you can have it back as it was; after that it is gone with
        all its files. Save everything first.
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          remove.mutate();
        }}
      >
        <label className="grow text-[13px] text-soft">
          Type its name, {name}
          <input
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="mt-0.5 block min-h-9 w-full border-b border-ink bg-transparent text-[15px] text-ink"
          />
        </label>
        <Button type="submit" disabled={typed.trim() !== name.trim() || remove.isPending}>
          Delete it
        </Button>
      </form>
      {remove.error && <Problem message={remove.error.message} onDismiss={remove.reset} />}
    </Section>
  );
}
