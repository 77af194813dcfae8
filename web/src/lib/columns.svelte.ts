import { session } from "../session.svelte";

const HIDDEN = 1;

/** Which columns of a table a person has put away, remembered with the sizes of their panes. */
export class Columns {
  constructor(readonly table: string) {}

  private key(column: string): string {
    return `column ${this.table} ${column}`;
  }

  shown(column: string): boolean {
    return session.person?.panes[this.key(column)] !== HIDDEN;
  }

  toggle(column: string) {
    if (!session.person) return;
    const { [this.key(column)]: hidden, ...others } = session.person.panes;
    const panes = hidden === HIDDEN ? others : { ...others, [this.key(column)]: HIDDEN };
    session.person = { ...session.person, panes };
    // who is not reached keeps the choice here, and saves it with the next one
    void session.prefer({ panes }).catch(() => undefined);
  }
}
