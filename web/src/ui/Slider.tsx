import { Slider as Radix } from "radix-ui";
import { useState } from "react";

interface Props {
  label: string;
  value: number;
  least?: number;
  most?: number;
  step?: number;
  /** The value in words with its unit. */
  words: (value: number) => string;
  change: (value: number) => void;
}

/** A figure on a line with its value beside it; saved when it is let go. */
export function Slider({ label, value, least = 0, most = 100, step = 1, words, change }: Props) {
  const [moving, setMoving] = useState<number | null>(null);
  const shown = moving ?? value;
  return (
    <div className="grid grid-cols-[84px_1fr_44px] items-center gap-2 text-[13px]">
      <span aria-hidden className="text-soft">
        {label}
      </span>
      <Radix.Root
        min={least}
        max={most}
        step={step}
        value={[shown]}
        onValueChange={([next]) => setMoving(next!)}
        onValueCommit={([next]) => {
          setMoving(null);
          if (next !== value) change(next!);
        }}
        onDoubleClick={() => least < 0 && value !== 0 && change(0)}
        className="relative flex h-6 touch-none items-center select-none"
      >
        <Radix.Track className="relative h-[3px] grow bg-gauge">
          {least < 0 && <span className="absolute top-[-3px] left-1/2 h-[9px] border-l border-soft" />}
          <Radix.Range className={least < 0 ? "" : "absolute h-full bg-measure"} />
        </Radix.Track>
        <Radix.Thumb
          aria-label={label}
          aria-valuetext={words(shown)}
          className="block h-4 w-2 border border-ink bg-sheet outline-offset-2 hover:border-measure"
        />
      </Radix.Root>
      <span className="figure text-right text-measure">{words(shown)}</span>
    </div>
  );
}
