import { useState } from "react";

import type { Schemas } from "../../../api/client";
import { useWindowWidth } from "../../../ui/useWindow";
import { SheetDrawing } from "../SheetDrawing";
import { isExact } from "./SizeFields";
import { SizeHandles } from "./SizeHandles";
import type { Draft } from "./useDraft";
import { ZoneLayer } from "./ZoneLayer";

const [ROOMY_PX, WIDE_PX] = [1100, 1600];

interface Props {
  draft: Draft;
  large?: boolean;
  zone: string | null;
  chooseZone: (zone: string | null) => void;
}

/** The drawing of a sheet, whose edges, zones and windows are dragged; a press on the free picture draws a zone. */
export function DrawnSheet({ draft, large, zone, chooseZone }: Props) {
  const width = useWindowWidth();
  const room = !large || width < ROOMY_PX ? 300 : width < WIDE_PX ? 440 : 640;
  const [held, hold] = useState<number | null>(null);
  return (
    <SheetDrawing sheet={live(draft)} room={room} tall={room * 0.8} held={held}>
      {(frame) => (
        <>
          <ZoneLayer draft={draft} frame={frame} zone={zone} choose={chooseZone} />
          <SizeHandles draft={draft} frame={frame} hold={hold} />
        </>
      )}
    </SheetDrawing>
  );
}

/** What is shown, with what is dragged as it is now: the answer to the last change may still be on its way. */
function live({ sheet, shown }: Draft): Schemas["SheetOut"] {
  const stated = isExact(sheet.size) ? sheet.size : sheet.size.recommended;
  const size = stated && stated.width > 0 && stated.height > 0 ? stated : shown.size;
  return {
    ...shown,
    size,
    covered: sheet.covered ?? [],
    windows: sheet.windows ?? [],
    veil: sheet.veil ?? null,
  };
}
