import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";

import { saveHouseStyle } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { houseStyleQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { Problem, Trouble } from "../../ui/Trouble";
import { Colours } from "./Colours";
import { Marks } from "./Marks";
import { Naming } from "./Naming";
import { Pairs } from "./Pairs";
import { Palettes } from "./Palettes";
import { Typefaces } from "./Typefaces";

export type HouseStyle = Schemas["HouseStyleOut"];
export type HouseColour = Schemas["HouseColour"];

/** What every section of the screen gets: the style, and a way to change it. */
export interface House {
  workspace: string;
  style: HouseStyle;
  change: (fields: Partial<Schemas["HouseStyleIn"]>) => void;
  add: (hex: string, name?: string) => void;
}

/** What the business's pieces are made with: colours that can be read on one another, typefaces, marks, names. */
export function HouseStyleScreen() {
  const { workspace = "" } = useParams();
  const queries = useQueryClient();
  const options = houseStyleQuery(workspace);
  const query = useQuery(options);
  const save = useMutation({
    scope: { id: `house-${workspace}` },
    mutationFn: (fields: Partial<Schemas["HouseStyleIn"]>) => {
      const { colours, heading, text, naming } = queries.getQueryData(options.queryKey)!;
      return saveHouseStyle(workspace, { colours, heading, text, naming, ...fields });
    },
    onSuccess: (style) => {
      queries.setQueryData(options.queryKey, style);
      for (const other of ["wall", "fit"]) void queries.invalidateQueries({ queryKey: [workspace, other] });
    },
  });
  if (query.error && !query.data) return <Trouble error={query.error} />;
  if (!query.data) return <main aria-busy className="px-7 py-10" />;
  const style = query.data;
  const house: House = {
    workspace,
    style,
    change: save.mutate,
    add: (hex, name = "") => {
      if (!style.colours.some((colour) => colour.hex === hex))
        save.mutate({ colours: [...style.colours, { hex, name }] });
    },
  };
  return (
    <main className="px-7 pt-4 pb-10">
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="text-[26px] leading-9">
          {plural(style.colours.length, "colour", "colours")}, {plural(style.readable, "pair", "pairs")} that
          can be read.
        </h1>
        <span role="status" className="text-[13px] text-soft">
          {save.isPending ? "saving…" : ""}
        </span>
        {save.error && <Problem message={save.error.message} onDismiss={save.reset} />}
      </div>
      <div className="mt-5 grid gap-x-12 gap-y-9 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="grid content-start gap-y-9">
          <Colours house={house} />
          <Palettes house={house} />
          <Typefaces house={house} />
        </div>
        <div className="grid content-start gap-y-9">
          <Pairs house={house} />
          <Marks house={house} />
          <Naming house={house} />
        </div>
      </div>
    </main>
  );
}
