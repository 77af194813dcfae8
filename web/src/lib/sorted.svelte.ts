/** What a figure of a table says as a number: `2:24 min` in seconds, `over 49` above 49, `1 364` in one; text as it is. */
export function figureOf(text: string): number | string {
  const said = text.replace(/[\s\u202f\u00a0](?=\d{3}\b)/g, "");
  const clock = /^(\d+):(\d\d)(?::(\d\d))?/.exec(said);
  if (clock) {
    const [first = 0, second = 0, third] = clock
      .slice(1)
      .map((part) => (part === undefined ? undefined : Number(part)));
    return third === undefined ? 60 * first! + second! : 3600 * first! + 60 * second! + third;
  }
  const number = /^(over |above |below )?(-?\d+(?:\.\d+)?)/.exec(said);
  if (!number) return text.toLowerCase();
  const more = number[1] === "below " ? -1e-9 : number[1] ? 1e-9 : 0;
  return Number(number[2]) + more;
}

const kept: Record<string, { column: string; down: boolean } | null> = $state({});

/** A table sorted by a column of the person's choice: first up, then down, then as it came; kept while the page is open. */
export class Sorted {
  constructor(readonly table: string) {}

  get column(): string | null {
    return kept[this.table]?.column ?? null;
  }

  /** For the head of a column. */
  aria(column: string): "ascending" | "descending" | "none" {
    const now = kept[this.table];
    return now?.column !== column ? "none" : now.down ? "descending" : "ascending";
  }

  mark(column: string): string {
    return { ascending: " ▴", descending: " ▾", none: "" }[this.aria(column)];
  }

  by(column: string) {
    const now = kept[this.table];
    kept[this.table] =
      now?.column !== column ? { column, down: false } : now.down ? null : { column, down: true };
  }

  /** The rows with the place at which each came; figures before words, what is equal as it came. */
  rows<Row>(rows: readonly Row[], text: (row: Row, column: string) => string): { row: Row; k: number }[] {
    const placed = rows.map((row, k) => ({ row, k }));
    const now = kept[this.table];
    if (!now) return placed;
    const sign = now.down ? -1 : 1;
    return placed
      .map((one) => ({ one, key: figureOf(text(one.row, now.column)) }))
      .sort((a, b) => {
        if (typeof a.key !== typeof b.key) return typeof a.key === "number" ? -1 : 1;
        return (a.key < b.key ? -sign : a.key > b.key ? sign : 0) || a.one.k - b.one.k;
      })
      .map(({ one }) => one);
  }
}
