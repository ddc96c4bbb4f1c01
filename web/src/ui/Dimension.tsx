/** A dimension line as on a technical drawing: a line with end strokes, over the width it measures. */
export function Dimension({ width, figure }: { width: number; figure?: string }) {
  return (
    <div aria-hidden style={{ width: Math.max(width, 3) }} className="text-measure">
      <div className="relative h-[7px] border-x border-measure">
        <div className="absolute inset-x-0 top-[3px] border-t border-measure" />
      </div>
      {figure && <div className="figure mt-1 text-center whitespace-nowrap">{figure}</div>}
    </div>
  );
}
