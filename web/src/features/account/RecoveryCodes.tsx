import { Button } from "../../ui/Button";

/** Codes for when the telephone is lost; each counts once. */
export function RecoveryCodes({ codes, done }: { codes: string[]; done: () => void }) {
  const text = codes.join("\n");
  return (
    <div className="mt-3 grid gap-3">
      <p>
        <b>Keep these.</b> When your telephone is lost, each of them signs you in once instead of a code.
      </p>
      <ul className="figure grid grid-cols-2 gap-x-6 border-y border-hairline py-2">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => void navigator.clipboard.writeText(text)}>Copy them</Button>
        <a
          href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
          download="fitzle-recovery-codes.txt"
          className="inline-flex min-h-8 items-center rounded-[3px] border border-ink px-3 py-1 text-[13px] font-semibold hover:bg-sheet"
        >
          Save them as a file
        </a>
        <Button look="bare" onClick={done}>
          I have them
        </Button>
      </div>
    </div>
  );
}
