import { Failure } from "../api/client";

/** Something to be saved. `key` names it to the server, so that what is sent again is made once. */
export interface Unsent<W> {
  key: string;
  /** The revision that it was made on. */
  base: number;
  wanted: W;
}

export type Saving = "saved" | "saving" | "not saved yet";

export interface Delivery<W> {
  /** Whether this is worth keeping over a reload; the rest is sent or said to have failed. */
  keeps: (wanted: W) => boolean;
  send: (unsent: Unsent<W>) => Promise<void>;
  /** The server does not want it; true holds what comes after it until it is released. */
  refused: (error: Failure, wanted: W) => boolean;
}

export interface Shown<W> {
  waiting: W[];
  state: Saving;
  savedAt: Date | null;
  trouble: Error | null;
}

const PASSES_BY_ITSELF = [0, 401, 408, 429, 502, 503, 504, 507];
const LONGEST_PAUSE_MS = 15_000;
const MOST_FAULTS = 3; // of the server's own, one after the other

/** Sends changes in order, keeps in the browser what the server does not have yet, and tries again by itself. */
export class Outbox<W> {
  shown: Shown<W>;
  private delivery: Delivery<W> | null = null;
  private queue: Unsent<W>[];
  private busy = false;
  private held = false;
  private stopped = false;
  private tries = 0;
  private timer = 0;
  private listeners = new Set<() => void>();

  /** `shelf` begins the names under which the browser keeps what is unsent. */
  constructor(private shelf: string) {
    this.queue = onShelf<W>(shelf);
    const state = this.queue.length > 0 ? "saving" : "saved";
    this.shown = { waiting: this.queue.map((one) => one.wanted), state, savedAt: null, trouble: null };
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  deliverBy(delivery: Delivery<W>): void {
    this.delivery = delivery;
  }

  push(wanted: W, base: number): void {
    const unsent = { key: crypto.randomUUID(), base, wanted };
    if (this.delivery?.keeps(wanted)) localStorage.setItem(this.shelf + unsent.key, stored(unsent));
    this.queue.push(unsent);
    this.show({});
    if (this.tries === 0) void this.work();
  }

  start = () => {
    this.stopped = false;
    void this.work();
  };

  stop(): void {
    this.stopped = true;
    window.clearTimeout(this.timer);
  }

  /** Goes on after `refused` has held everything. */
  release(): void {
    this.held = false;
    void this.work();
  }

  forgetTrouble = () => this.show({ trouble: null });

  private async work(): Promise<void> {
    window.clearTimeout(this.timer);
    if (this.busy) return;
    this.busy = true;
    while (this.queue.length > 0 && !this.held && !this.stopped && (await this.sent(this.queue[0]!)));
    this.busy = false;
    if (this.queue.length === 0) this.show({ state: "saved" });
  }

  /** Sends one; false where it has to wait. */
  private async sent(first: Unsent<W>): Promise<boolean> {
    const { send, keeps, refused } = this.delivery!;
    try {
      if (this.tries === 0) this.show({ state: "saving" });
      await send(first);
      this.take(first);
      this.show({ savedAt: new Date(), trouble: null });
    } catch (error) {
      const failure = error instanceof Failure ? error : new Failure(String(error), -1, null);
      if (failure.savedRevision !== null) {
        this.take(first);
        this.show({ savedAt: new Date(), trouble: failure });
        return true;
      }
      this.tries += 1;
      if (keeps(first.wanted) && passes(failure, this.tries)) {
        this.show({ state: "not saved yet" });
        this.timer = window.setTimeout(() => void this.work(), pause(this.tries));
        return false;
      }
      this.take(first);
      this.held = refused(failure, first.wanted);
      if (!this.held) this.show({ trouble: failure });
    }
    return true;
  }

  private take(first: Unsent<W>): void {
    this.queue.shift();
    this.tries = 0;
    localStorage.removeItem(this.shelf + first.key);
    this.show({});
  }

  private show(more: Partial<Shown<W>>): void {
    this.shown = { ...this.shown, ...more, waiting: this.queue.map((one) => one.wanted) };
    this.listeners.forEach((listener) => listener());
  }
}

const passes = (failure: Failure, tries: number) =>
  PASSES_BY_ITSELF.includes(failure.status) || (failure.status >= 500 && tries < MOST_FAULTS);

const pause = (tries: number) => Math.min(LONGEST_PAUSE_MS, 1000 * 2 ** Math.min(tries - 1, 5));

let count = 0;
const stored = (unsent: object) => JSON.stringify({ ...unsent, at: Date.now(), number: (count += 1) });

/** What an earlier page left unsent, in the order in which it was made. */
function onShelf<W>(shelf: string): Unsent<W>[] {
  const found: (Unsent<W> & { at: number; number: number })[] = [];
  for (let index = 0; index < localStorage.length; index += 1) {
    const name = localStorage.key(index)!;
    if (name.startsWith(shelf)) found.push(JSON.parse(localStorage.getItem(name)!) as (typeof found)[number]);
  }
  return found
    .sort((one, other) => one.at - other.at || one.number - other.number)
    .map(({ key, base, wanted }) => ({ key, base, wanted }));
}
