import type { ButtonHTMLAttributes, Ref } from "react";

const LOOKS = {
  next: "bg-next text-on-next border-next hover:opacity-90",
  plain: "border-ink text-ink hover:bg-sheet",
  quiet: "border-hairline text-ink hover:border-ink",
  bare: "border-transparent text-measure hover:underline px-0!",
};

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: keyof typeof LOOKS;
  ref?: Ref<HTMLButtonElement>;
}

export function Button({ look = "plain", className = "", ...rest }: Props) {
  return (
    <button
      type="button"
      {...rest}
      className={`inline-flex min-h-8 items-center gap-1.5 rounded-[3px] border px-3 py-1 text-[13px] font-semibold whitespace-nowrap disabled:opacity-45 ${LOOKS[look]} ${className}`}
    />
  );
}
