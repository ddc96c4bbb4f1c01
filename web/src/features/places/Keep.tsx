import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { useNavigate } from "react-router";

import { addPlace } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { wallQuery } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

interface KeepProps {
  workspace: string;
  sheet: Schemas["SheetOut"];
  words?: string;
  /** What is done together with it: fills the new place, say. */
  then?: (place: string) => Promise<unknown>;
  busy?: boolean;
  /** The screenshot it was learnt from, and the number of the place in it. */
  learnt?: { learning: string; found: number };
}

/** Name and destination, and the one thing to do next. */
export function Keep({ workspace, sheet, words = "Put it on the wall", then, busy, learnt }: KeepProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const wall = useQuery(wallQuery(workspace));
  const shelves = wall.data?.shelves.map((shelf) => shelf.name) ?? [];
  const [name, setName] = useState(sheet.name);
  const [destination, setDestination] = useState("");
  const add = useMutation({
    mutationFn: async () => {
      const place = await addPlace(workspace, { destination, name, sheet: sheet.sheet, ...learnt });
      await then?.(place.id);
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: [workspace] });
      void navigate(`/w/${workspace}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };
  const field = "mt-0.5 block min-h-9 w-full min-w-0 border-b border-ink bg-transparent text-[15px]";
  return (
    <form
      onSubmit={submit}
      className="grid content-start items-end gap-x-6 gap-y-4 self-start border-t-2 border-strong pt-4 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto]"
    >
      <label className="text-[13px] text-soft">
        The place is called
        <input
          className={`${field} text-ink`}
          required
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <label className="text-[13px] text-soft">
        at
        <input
          className={`${field} text-ink`}
          maxLength={120}
          list="destinations"
          placeholder="site, or later"
          value={destination}
          onChange={(event) => setDestination(event.target.value)}
        />
        <datalist id="destinations">
          {shelves.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      </label>
      <Button look="next" type="submit" disabled={add.isPending || busy}>
        {words}
      </Button>
      {add.error && (
        <div className="sm:col-span-3">
          <Problem message={add.error.message} onDismiss={add.reset} />
        </div>
      )}
    </form>
  );
}
