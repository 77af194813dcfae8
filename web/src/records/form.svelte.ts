import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
import { session } from "../session.svelte";

type Cells = Record<string, string>;
/** The open tables, in the order in which they are offered. */
export const TABLES = [
  "tools",
  "geometries",
  "grades",
  "windows",
  "materials",
  "machines",
  "spindles",
] as const;
type TableName = (typeof TABLES)[number];

/** Put a kept thing into the archive, or take it out. */
export function setArchived(table: TableName, id: number, archived: boolean): Promise<Schemas["RecordOut"]> {
  const path = { table, record_id: id };
  return archived
    ? ask(api.POST("/api/records/{table}/{record_id}/archive", { params: { path } }))
    : ask(api.POST("/api/records/{table}/{record_id}/restore", { params: { path } }));
}

/** What was typed into a form that was closed before it was saved, by table and thing. */
const left = new Map<string, Cells>();

/** One kept thing being entered or changed: what was typed stays, also when it is refused. */
export class RecordForm {
  columns = $state<Schemas["ColumnOut"][]>([]);
  record = $state<Schemas["RecordOut"] | null>(null);
  typed = $state<Cells>({});
  errors = $state<Record<string, string>>({});
  /** Both readings of what was ambiguous, by field. */
  readings = $state<Record<string, string[]>>({});
  problem = $state("");
  busy = $state(false);
  readonly table: TableName;
  private key = "";

  constructor(table: TableName) {
    this.table = table;
  }

  async load(id: number | null, start: Cells = {}) {
    const path = { table: this.table };
    this.key = `${this.table} ${id ?? "new"}`;
    this.columns = await ask(api.GET("/api/records/{table}/columns", { params: { path } }));
    this.typed = { ...start, ...left.get(this.key) };
    if (id !== null) {
      const found = await ask(
        api.GET("/api/records/{table}/{record_id}", { params: { path: { ...path, record_id: id } } }),
      );
      this.record = found;
    }
  }

  /** What the field shows: as typed, else as kept, in the units shown. */
  value(name: string): string {
    if (name in this.typed) return this.typed[name]!;
    const cell = this.record?.cells[name];
    if (!cell) return "";
    return session.units === "inch" ? cell.shown.inch : cell.shown.metric;
  }

  type(name: string, value: string) {
    this.typed = { ...this.typed, [name]: value };
    left.set(this.key, { ...this.typed });
    if (this.errors[name]) this.errors = { ...this.errors, [name]: "" };
  }

  /** Save what was typed; null where it was refused. */
  async save(): Promise<Schemas["RecordOut"] | null> {
    this.busy = true;
    this.problem = "";
    this.errors = {};
    const cells = this.typed;
    const units = session.units;
    const path = { table: this.table };
    const record = this.record;
    try {
      const saved = record
        ? await askOnce((once) =>
            api.POST("/api/records/{table}/{record_id}", {
              ...once,
              params: { path: { ...path, record_id: record.id } },
              body: { cells, units, version: record.version },
            }),
          )
        : await askOnce((once) =>
            api.POST("/api/records/{table}", { ...once, params: { path }, body: { cells, units } }),
          );
      this.record = saved;
      this.typed = {};
      left.delete(this.key);
      return saved;
    } catch (reason) {
      const problem = reason as Problem;
      this.problem = problem.message;
      this.errors = Object.fromEntries((problem.errors ?? []).map((e) => [e.field, e.message]));
      this.readings = Object.fromEntries((problem.errors ?? []).map((e) => [e.field, e.readings ?? []]));
      return null;
    } finally {
      this.busy = false;
    }
  }

  async archive(archived: boolean) {
    if (this.record) this.record = await setArchived(this.table, this.record.id, archived);
  }
}
