import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { api, ask, Problem, type Schemas } from "../api/client";

export type EntryIn = Schemas["EntryIn"];

/** An entry that was typed on this tablet and is not at the server yet. */
export interface Waiting {
  key: string;
  trial: number;
  entry: EntryIn;
  /** Why the server would not take it; blank while it only waits. */
  refused: string;
}

interface Shelf extends DBSchema {
  waiting: { key: string; value: Waiting };
  seen: { key: string; value: unknown };
}

const AGAIN = 5000; // ms until the next try while nobody answers
const NAME = "arrow-bench-trials";

/** Entries are kept on the tablet first and then sent, each once, however often the line breaks. */
export class Outbox {
  waiting = $state.raw<Waiting[]>([]);
  /** Whether the server answered at the last try. */
  away = $state(false);
  private shelf: Promise<IDBPDatabase<Shelf>> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private sending = false;

  constructor(private readonly sent: (trial: number) => void = () => {}) {}

  private open() {
    this.shelf ??= openDB<Shelf>(NAME, 1, {
      upgrade(db) {
        db.createObjectStore("waiting", { keyPath: "key" });
        db.createObjectStore("seen");
      },
    });
    return this.shelf;
  }

  /** What an earlier page left, and the sending of it. */
  async begin() {
    this.waiting = await (await this.open()).getAll("waiting");
    void this.send();
  }

  end() {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  /** Keep an entry; once this is done it survives whatever becomes of page and line. */
  async keep(trial: number, entry: EntryIn) {
    const one: Waiting = { key: entry.key, trial, entry: $state.snapshot(entry) as EntryIn, refused: "" };
    await (await this.open()).put("waiting", one);
    this.waiting = [...this.waiting.filter((other) => other.key !== one.key), one];
    await this.send();
  }

  /** Give an entry up that the server refused. */
  async drop(key: string) {
    await (await this.open()).delete("waiting", key);
    this.waiting = this.waiting.filter((one) => one.key !== key);
  }

  /** Send what waits, the oldest first. */
  async send() {
    if (this.sending) return;
    this.sending = true;
    this.end();
    try {
      for (const one of [...this.waiting].filter((each) => !each.refused)) {
        try {
          await ask(
            api.POST("/api/trials/{trial_id}/entries", {
              params: { path: { trial_id: one.trial } },
              body: one.entry,
            }),
          );
          this.away = false;
          await this.drop(one.key);
          this.sent(one.trial);
        } catch (reason) {
          if (!(reason instanceof Problem)) throw reason;
          if (reason.passing || reason.status >= 500) {
            this.away = true;
            this.timer = setTimeout(() => void this.send(), AGAIN);
            return;
          }
          const refused = { ...one, refused: reason.message };
          await (await this.open()).put("waiting", refused);
          this.waiting = this.waiting.map((other) => (other.key === one.key ? refused : other));
        }
      }
      this.away = false;
    } finally {
      this.sending = false;
    }
  }

  /** What was last seen of a page, for when nobody answers. */
  async recall<T>(key: string): Promise<T | undefined> {
    return (await (await this.open()).get("seen", key)) as T | undefined;
  }

  async remember(key: string, value: unknown) {
    await (await this.open()).put("seen", value, key);
  }
}

/** A name of one's own for an entry: sent twice it is there once. */
export const ownKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, "0")).join(
    "",
  );
