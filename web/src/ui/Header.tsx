import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Moon, Sun } from "lucide-react";
import { useState } from "react";
import { Link, NavLink } from "react-router";

import { signOut } from "../api/actions";
import { BringInMenu } from "./BringInMenu";
import { chooseTheme, storedTheme } from "./theme";
import { WorkspaceMenu } from "./WorkspaceMenu";

const LINKS = [
  { to: "", label: "Wall" },
  { to: "artwork", label: "Artwork" },
  { to: "house", label: "House style" },
  { to: "deliveries", label: "Deliveries" },
];

export function Wordmark() {
  return (
    <span className="inline-block font-heading text-[21px] leading-6 font-extrabold tracking-tight">
      Fitzle
      <span aria-hidden className="relative block h-[7px] border-x border-measure">
        <span className="absolute inset-x-0 top-[3px] border-t border-measure" />
      </span>
    </span>
  );
}

interface Props {
  workspace: { name: string; slug: string };
  /** Whether this person runs this Fitzle. */
  runs: boolean;
}

export function Header({ workspace, runs }: Props) {
  const queries = useQueryClient();
  const leave = useMutation({
    mutationFn: signOut,
    onSuccess: () => {
      queries.clear();
      location.assign("/");
    },
  });
  return (
    <header className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-hairline px-7 py-1.5">
      <Link to={`/w/${workspace.slug}`} aria-label="Fitzle, to the wall">
        <Wordmark />
      </Link>
      <nav aria-label="Screens" className="flex gap-5">
        {LINKS.map(({ to, label }) => (
          <NavLink
            key={label}
            to={`/w/${workspace.slug}/${to}`}
            end={to === ""}
            className={({ isActive }) =>
              `inline-flex min-h-7 items-center border-b-2 ${isActive ? "border-measure font-semibold" : "border-transparent text-soft hover:text-ink"}`
            }
          >
            {label}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex flex-wrap items-center justify-end gap-x-4 gap-y-1 text-[13px] text-soft">
        <WorkspaceMenu workspace={workspace} />
        {runs && (
          <Link
            to={`/w/${workspace.slug}/doing`}
            className="inline-flex min-h-7 items-center hover:text-ink hover:underline max-lg:hidden"
          >
            How it is doing
          </Link>
        )}
        <ThemeSwitch />
        <Link to="/account" className="inline-flex min-h-7 items-center hover:text-ink hover:underline">
          Account
        </Link>
        <button
          type="button"
          className="min-h-7 hover:text-ink hover:underline"
          onClick={() => leave.mutate()}
        >
          Sign out
        </button>
        <BringInMenu />
      </div>
    </header>
  );
}

function ThemeSwitch() {
  const [theme, setTheme] = useState(storedTheme);
  const other = theme === "dark" ? "light" : "dark";
  const Symbol = other === "dark" ? Moon : Sun;
  return (
    <button
      type="button"
      className="inline-flex min-h-7 items-center gap-1.5 hover:text-ink"
      onClick={() => {
        chooseTheme(other);
        setTheme(other);
      }}
    >
      <Symbol aria-hidden size={14} />
      {other === "dark" ? "Dark" : "Light"}
    </button>
  );
}
