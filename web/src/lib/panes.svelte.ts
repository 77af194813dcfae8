import { session } from "../session.svelte";

/** A pane whose size is moved: its least, usual and most [px]. */
export interface Pane {
  least: number;
  usual: number;
  most: number;
}

export const FOLDED = 30; // px that a folded pane keeps: its title
const SAVED_AFTER = 600; // ms of rest

/** Sizes of the panes of a view, remembered for each person; 0 is a folded one. */
export class Panes {
  private moved = $state<Record<string, number>>({});
  private timer = 0;

  constructor(
    readonly view: string,
    readonly panes: Record<string, Pane>,
  ) {}

  private key(name: string): string {
    return `${this.view} ${name}`;
  }

  /** What the person left, or what they are moving now. */
  private kept(name: string): number | undefined {
    return this.moved[name] ?? session.person?.panes[this.key(name)];
  }

  folded(name: string): boolean {
    return this.kept(name) === 0;
  }

  /** The size in CSS: as it came while nobody has moved it. */
  css(name: string, usual: string): string {
    return this.kept(name) === undefined ? usual : `${this.size(name)}px`;
  }

  /** The size [px] that a pane has. */
  size(name: string): number {
    const pane = this.panes[name]!;
    const kept = this.kept(name);
    if (kept === 0) return FOLDED;
    return Math.min(Math.max(kept ?? pane.usual, pane.least), pane.most);
  }

  to(name: string, size: number) {
    const pane = this.panes[name]!;
    this.moved[name] = Math.round(Math.min(Math.max(size, pane.least), pane.most));
    this.save();
  }

  fold(name: string) {
    this.moved[name] = this.folded(name) ? this.panes[name]!.usual : 0;
    this.save();
  }

  /** As it came: what was kept of it is forgotten. */
  reset(name: string) {
    const { [this.key(name)]: _, ...others } = session.person?.panes ?? {};
    delete this.moved[name];
    if (session.person) session.person = { ...session.person, panes: others };
    this.save(others);
  }

  private save(others: Record<string, number> = session.person?.panes ?? {}) {
    clearTimeout(this.timer);
    this.timer = window.setTimeout(() => {
      const own = Object.fromEntries(
        Object.entries(this.moved).map(([name, size]) => [this.key(name), size]),
      );
      // who is not reached keeps the sizes here, and saves them with the next move
      void session.prefer({ panes: { ...others, ...own } }).catch(() => undefined);
    }, SAVED_AFTER);
  }
}
