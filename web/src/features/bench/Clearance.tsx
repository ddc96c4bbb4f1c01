import type { FitOut, PartOut } from "../../api/client";

const LEAST_SHOWN_PX = 14; // on the screen: below that a line with a figure would be all figure

/** The contents' box with its distances to the edges, in px of the file. */
export function Clearance({ fit, part, scale }: { fit: FitOut; part: PartOut; scale: number }) {
  const { box } = part;
  const right = fit.width - box.x - box.width;
  const bottom = fit.height - box.y - box.height;
  const middle = { x: (box.x + box.width / 2) * scale, y: (box.y + box.height / 2) * scale };
  return (
    <>
      <span
        className="absolute border border-measure/70"
        style={{
          left: box.x * scale,
          top: box.y * scale,
          width: box.width * scale,
          height: box.height * scale,
        }}
      />
      <Across left={0} top={middle.y} length={box.x * scale} figure={box.x} />
      <Across left={(box.x + box.width) * scale} top={middle.y} length={right * scale} figure={right} />
      <Down left={middle.x} top={0} length={box.y * scale} figure={box.y} />
      <Down left={middle.x} top={(box.y + box.height) * scale} length={bottom * scale} figure={bottom} />
    </>
  );
}

interface LineProps {
  left: number;
  top: number;
  length: number;
  figure: number;
}

const words = (figure: number) => String(Math.round(figure * 10) / 10);

function Across({ left, top, length, figure }: LineProps) {
  if (length < 2) return null;
  return (
    <span className="absolute border-t border-measure" style={{ left, top, width: length }}>
      {length >= LEAST_SHOWN_PX && (
        <span className="figure absolute left-1/2 -translate-x-1/2 -translate-y-1/2 bg-sheet px-1 text-measure">
          {words(figure)}
        </span>
      )}
    </span>
  );
}

function Down({ left, top, length, figure }: LineProps) {
  if (length < 2) return null;
  return (
    <span className="absolute border-l border-measure" style={{ left, top, height: length }}>
      {length >= LEAST_SHOWN_PX && (
        <span className="figure absolute top-1/2 -translate-x-1/2 -translate-y-1/2 bg-sheet px-1 text-measure">
          {words(figure)}
        </span>
      )}
    </span>
  );
}
