import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";

import { saveHouseStyle } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { houseStyleQuery } from "../../api/queries";
import { plural } from "../../measure/words";
import { SavedState } from "../../ui/SavedState";
import { Problem, Trouble } from "../../ui/Trouble";
import { useOutbox } from "../../ui/useOutbox";
import { Colours } from "./Colours";
import { Marks } from "./Marks";
import { Naming } from "./Naming";
import { Pairs } from "./Pairs";
import { Palettes } from "./Palettes";
import { Typefaces } from "./Typefaces";

export type HouseStyle = Schemas["HouseStyleOut"];
export type HouseColour = Schemas["HouseColour"];

type Fields = Partial<Schemas["HouseStyleIn"]>;

/** What every section of the screen gets: the style, and a way to change it. */
export interface House {
  workspace: string;
  style: HouseStyle;
  change: (fields: Fields) => void;
  add: (hex: string, name?: string) => void;
}

/** What the business's pieces are made with: colours that can be read on one another, typefaces, marks, names. */
export function HouseStyleScreen() {
  const { workspace = "" } = useParams();
  const queries = useQueryClient();
  const options = houseStyleQuery(workspace);
  const query = useQuery(options);
  const outbox = useOutbox<Fields>("house-style " + workspace, {
    keeps: () => true,
    send: async ({ wanted }) => {
      const newest = queries.getQueryData(options.queryKey) ?? (await queries.fetchQuery(options));
      const { colours, heading, text, naming } = newest;
      const style = await saveHouseStyle(workspace, { colours, heading, text, naming, ...wanted });
      queries.setQueryData(options.queryKey, style);
      for (const other of ["wall", "fit"]) void queries.invalidateQueries({ queryKey: [workspace, other] });
    },
    refused: () => false,
  });
  const change = (fields: Fields) => outbox.push(fields, 0);
  if (query.error && !query.data) return <Trouble error={query.error} />;
  if (!query.data) return <main aria-busy className="px-7 py-10" />;
  const style = withUnsaved(query.data, outbox.waiting);
  const house: House = {
    workspace,
    style,
    change,
    add: (hex, name = "") => {
      if (!style.colours.some((colour) => colour.hex === hex))
        change({ colours: [...style.colours, { hex, name }] });
    },
  };
  return (
    <main className="px-7 pt-4 pb-10">
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="text-[26px] leading-9">
          {plural(style.colours.length, "colour", "colours")}, {plural(style.readable, "pair", "pairs")} that
          can be read.
        </h1>
        <SavedState outbox={outbox} />
        {outbox.trouble && <Problem message={outbox.trouble.message} onDismiss={outbox.forgetTrouble} />}
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

/** The style with what the server does not have yet; colours that come or go wait, as all their pairs do. */
function withUnsaved(style: HouseStyle, waiting: Fields[]): HouseStyle {
  const fields: Fields = Object.assign({}, ...waiting);
  const { colours = style.colours, ...others } = fields;
  return { ...style, ...others, colours: colours.length === style.colours.length ? colours : style.colours };
}
