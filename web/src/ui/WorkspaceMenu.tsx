import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useState, type FormEvent } from "react";
import { Link, useNavigate } from "react-router";

import { beginWorkspace, leaveWorkspace, renameWorkspace } from "../api/actions";
import { sessionQuery } from "../api/queries";
import { BringInWorkspace } from "./BringInWorkspace";
import { Button } from "./Button";
import { DeletedWorkspaces } from "./DeletedWorkspaces";
import { Problem } from "./Trouble";

interface Named {
  name: string;
  slug: string;
}

/** The workspaces of this person: switch between them, begin another, rename or leave this one. */
export function WorkspaceMenu({ workspace }: { workspace: Named }) {
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="inline-flex min-h-7 max-w-52 items-center max-md:max-w-36 gap-1 hover:text-ink">
        <span className="truncate">{workspace.name}</span>
        <ChevronDown aria-hidden size={13} className="shrink-0" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Workspaces"
          className="z-40 w-[320px] border border-ink bg-sheet p-4 text-[13px]"
        >
          <Others workspace={workspace} close={close} />
          <NameForm
            key={workspace.name}
            label="This workspace is called"
            first={workspace.name}
            act="Rename"
            save={(name) => renameWorkspace(workspace.slug, name)}
            done={close}
          />
          <Begin close={close} />
          <DeletedWorkspaces done={close} />
          <div className="grid justify-items-start border-t border-hairline pt-2">
            <BringInWorkspace done={close} />
            <Link
              to={`/w/${workspace.slug}/workspace`}
              onClick={close}
              className="inline-flex min-h-8 items-center font-semibold text-measure hover:underline"
            >
              Save or delete this workspace
            </Link>
          </div>
          <Leave workspace={workspace} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Others({ workspace, close }: { workspace: Named; close: () => void }) {
  const session = useQuery(sessionQuery());
  const others = session.data?.workspaces.filter((one) => one.slug !== workspace.slug) ?? [];
  if (others.length === 0) return null;
  return (
    <ul className="mb-3 max-h-60 overflow-y-auto border-b border-hairline pb-2">
      {others.map((one) => (
        <li key={one.slug}>
          <Link
            to={`/w/${one.slug}`}
            onClick={close}
            className="flex min-h-8 items-center font-semibold text-measure hover:underline"
          >
            <span className="truncate">{one.name}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

interface NameFormProps {
  label: string;
  first: string;
  act: string;
  save: (name: string) => Promise<Named>;
  done: (saved: Named) => void;
}

function NameForm({ label, first, act, save, done }: NameFormProps) {
  const queries = useQueryClient();
  const [name, setName] = useState(first);
  const saving = useMutation({
    mutationFn: () => save(name),
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: ["session"] });
      done(saved);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    saving.mutate();
  };
  return (
    <form onSubmit={submit} className="mb-3">
      <label className="block text-soft">
        {label}
        <span className="mt-1 flex items-end gap-3">
          <input
            required
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="min-h-8 w-full min-w-0 border-b border-ink bg-transparent text-[15px] text-ink"
          />
          <Button type="submit" disabled={saving.isPending || !name.trim() || name.trim() === first}>
            {act}
          </Button>
        </span>
      </label>
      {saving.error && <Problem message={saving.error.message} onDismiss={saving.reset} />}
    </form>
  );
}

function Begin({ close }: { close: () => void }) {
  const navigate = useNavigate();
  return (
    <NameForm
      label="Begin another"
      first=""
      act="Begin it"
      save={beginWorkspace}
      done={({ slug }) => {
        close();
        void navigate(`/w/${slug}/begin`);
      }}
    />
  );
}

function Leave({ workspace }: { workspace: Named }) {
  const leaving = useMutation({
    mutationFn: () => leaveWorkspace(workspace.slug),
    onSuccess: () => location.assign("/"),
  });
  return (
    <div>
      <button
        type="button"
        className="min-h-6 text-soft hover:text-ink hover:underline"
        onClick={() => leaving.mutate()}
      >
        Leave this workspace
      </button>
      {leaving.error && <Problem message={leaving.error.message} onDismiss={leaving.reset} />}
    </div>
  );
}
