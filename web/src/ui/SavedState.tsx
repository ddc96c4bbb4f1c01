import type { Sending } from "./useOutbox";

/** Whether what is on the screen is on the server too. */
export function SavedState({ outbox }: { outbox: Omit<Sending<unknown>, "push"> }) {
  const { state, savedAt, waiting } = outbox;
  if (state === "not saved yet")
    return (
      <span role="status" className="flex items-baseline gap-2 text-[13px] font-semibold text-risky">
        <span>
          {waiting.length > 1 ? `${waiting.length} changes are` : "Your change is"} not saved yet. Kept in
          this browser, sent again by itself.
        </span>
        <button type="button" onClick={outbox.tryNow} className="min-h-6 underline">
          Try now
        </button>
      </span>
    );
  return (
    <span role="status" className="text-[13px] text-soft">
      {state === "saving" ? "saving…" : savedAt ? `saved ${clock(savedAt)}` : "saved"}
    </span>
  );
}

const clock = (when: Date) => when.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
