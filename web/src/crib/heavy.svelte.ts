import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
import { session } from "../session.svelte";

export type Section = "tool" | "settings" | "feature" | "holding";
export type Table = "segments" | "steps";
type Cell = string | number | boolean;
type Row = Record<string, Cell>;
export interface HeavyForm {
  material: string;
  machine: string;
  tool: Row;
  segments: Row[];
  steps: Row[];
  settings: Row;
  feature: Row;
  holding: Row;
}

const FLAGS = new Set(["through"]); // kept as true and false
const REST = 800; // ms of rest after which a change is saved

/** A heavy tool as it is being built: its form, what it is worth, and how far it is saved. */
export class HeavyBuild {
  form = $state<HeavyForm | null>(null);
  answer = $state<Schemas["HeavyOut"] | null>(null);
  problem = $state<Problem | null>(null);
  conflict = $state<Problem | null>(null);
  saved = $state("");
  stale = $state(false);
  private id = 0;
  private revision = 0;
  private asked = 0;
  private timer = 0;
  private past = $state<string[]>([]);
  private future = $state<string[]>([]);

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.future.length > 0;
  }

  async open(id: number) {
    clearTimeout(this.timer);
    const kept = await ask(api.GET("/api/crib/heavy-tools/{tool_id}", { params: { path: { tool_id: id } } }));
    this.id = kept.id;
    this.revision = kept.revision;
    this.past = [];
    this.future = [];
    this.conflict = null;
    this.saved = `saved, version ${kept.revision}`;
    await this.study(whole(kept.form));
  }

  /** Set one cell; blank takes it away. Returns the refusal, so that what was typed stands with its reason. */
  async set(where: Section | Table, row: number | null, name: string, text: string): Promise<Problem | null> {
    const cell = row === null ? `${where}.${name}` : `${where}.${row}.${name}`;
    return this.change((form) => {
      const target = row === null ? (form[where as Section] as Row) : (form[where as Table][row] as Row);
      if (text === "") delete target[name];
      else target[name] = FLAGS.has(name) ? text === "true" : text;
    }, cell);
  }

  async name(what: "material" | "machine", text: string): Promise<Problem | null> {
    return this.change((form) => (form[what] = text));
  }

  async add(where: Table) {
    await this.change((form) => {
      const last = form[where].at(-1);
      const made: Row = { ...last, name: where === "segments" ? "solid" : "step" };
      if (where === "segments") for (const name of ["start", "arms", "width"]) delete made[name];
      form[where].push(made);
    });
  }

  async remove(where: Table, row: number) {
    await this.change((form) => form[where].splice(row, 1));
  }

  /** Take a remedy: its tables in place of the tool's own. */
  async take(patch: Record<string, unknown>) {
    await this.change((form) => {
      form.segments = patch.segments as Row[];
      form.steps = patch.steps as Row[];
      form.machine = String(patch.machine);
      form.tool = patch.tool as Row;
      form.feature = { ...form.feature, ...(patch.feature as Row) };
      form.settings = { ...form.settings, ...(patch.settings as Row) };
    });
  }

  async undo() {
    const before = this.past.pop();
    if (before === undefined || !this.form) return;
    this.future.push(JSON.stringify(this.form));
    if (!(await this.study(JSON.parse(before)))) this.soon();
  }

  async redo() {
    const after = this.future.pop();
    if (after === undefined || !this.form) return;
    this.past.push(JSON.stringify(this.form));
    if (!(await this.study(JSON.parse(after)))) this.soon();
  }

  async copy(): Promise<number> {
    const form = structuredClone($state.snapshot(this.form)) as HeavyForm;
    form.tool.name = `${form.tool.name} copy`.slice(0, 80);
    const made = await askOnce((once) =>
      api.POST("/api/crib/heavy-tools", { ...once, body: { form: { ...form }, units: "mm" } }),
    );
    return made.id;
  }

  async archive() {
    clearTimeout(this.timer);
    await ask(api.DELETE("/api/crib/heavy-tools/{tool_id}", { params: { path: { tool_id: this.id } } }));
  }

  /** Keep mine over what somebody else saved, or take theirs. */
  async settle(mine: boolean) {
    const theirs = Number(this.conflict?.body.current_revision ?? 0);
    this.conflict = null;
    if (!mine) return this.open(this.id);
    this.revision = theirs;
    await this.save();
  }

  private async change(edit: (form: HeavyForm) => unknown, cell = ""): Promise<Problem | null> {
    if (!this.form) return null;
    const before = JSON.stringify(this.form);
    const form = JSON.parse(before) as HeavyForm;
    edit(form);
    const refused = await this.study(form, cell);
    if (!refused) {
      this.past.push(before);
      this.future = [];
      this.soon();
    }
    return refused;
  }

  /** What a form is worth; the latest wins. A form that is refused does not take the place of the one that stands. */
  private async study(form: HeavyForm, typed = ""): Promise<Problem | null> {
    const mine = ++this.asked;
    this.stale = true;
    try {
      const answer = await ask(
        api.POST("/api/crib/heavy-tools/study", { body: { form: { ...form }, units: session.units, typed } }),
      );
      if (mine !== this.asked) return null;
      this.answer = answer;
      this.form = whole(answer.form);
      this.problem = null;
      return null;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (mine === this.asked) this.problem = reason;
      this.form ??= form;
      return reason;
    } finally {
      if (mine === this.asked) this.stale = false;
    }
  }

  private soon() {
    if (!session.mayEdit) return;
    clearTimeout(this.timer);
    this.saved = "not saved yet";
    this.timer = window.setTimeout(() => void this.save(), REST);
  }

  private async save() {
    if (!this.form) return;
    const form = { ...this.form };
    try {
      const kept = await askOnce((once) =>
        api.PUT("/api/crib/heavy-tools/{tool_id}", {
          ...once,
          params: { path: { tool_id: this.id } },
          body: { form, units: "mm", revision: this.revision },
        }),
      );
      this.revision = kept.revision;
      this.saved = `saved, version ${kept.revision}`;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      this.saved = "not saved";
      if (reason.status === 409 && reason.body.current_revision) this.conflict = reason;
      else if (reason.away) this.timer = window.setTimeout(() => void this.save(), 4 * REST);
      else this.problem = reason;
    }
  }
}

const whole = (form: Record<string, unknown>): HeavyForm =>
  ({
    tool: {},
    segments: [],
    steps: [],
    settings: {},
    feature: {},
    holding: {},
    ...form,
  }) as unknown as HeavyForm;
