import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
import { drops } from "../lib/draft.svelte";
import { page } from "../page.svelte";
import { session, shown } from "../session.svelte";

type Job = Schemas["JobOut"];
type Edit = Schemas["EditIn"]["edit"];

export interface Conflict {
  edit: Edit;
  gesture: string;
  author: string;
  revision: number;
  /** Every value in which the two versions differ. */
  differences: { where: string; what: string; base: string; theirs: string; yours: string }[];
}

/** One job under edit: saves each gesture as a revision, undoes, and meets other people's saves without losing work. */
export class JobEditor {
  job = $state<Job | null>(null);
  problem = $state<Problem | null>(null);
  conflict = $state<Conflict | null>(null);
  saving = $state(false);
  /** What else forgets the change that a person drops after a conflict. */
  onDrop: (() => void) | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  constructor(readonly id: number) {}

  async load() {
    this.accept(await ask(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: this.id } } })));
  }

  /** What was typed, in the units shown. */
  told(text: string): string {
    const either = this.job?.either[text];
    return either ? shown(either) : text;
  }

  /** Entries of an operation or of a feature of the drawing as the form shows them, in the units shown. */
  sizes(identity: string, entries: Record<string, unknown>): Record<string, string | boolean> {
    const either = this.job?.sizes[identity] ?? {};
    return Object.fromEntries(
      Object.entries(entries).map(([name, value]) => [
        name,
        typeof value === "boolean" ? value : either[name] ? shown(either[name]) : String(value ?? ""),
      ]),
    );
  }

  /** Save one gesture; gestures go out one after the other. True when it was saved; a refusal is this job's `problem`. */
  async save(edit: Edit): Promise<boolean> {
    const refusal = await this.keep(edit);
    this.problem = refusal && refusal.status !== 409 ? refusal : null;
    return !refusal;
  }

  /** Save one gesture and give back why it was refused, for the field that asks; null when it was saved. */
  keep(edit: Edit): Promise<Problem | null> {
    const run = this.queue.then(() => this.send(edit));
    this.queue = run.catch(() => null);
    return run;
  }

  async undo() {
    await this.travel("undo");
  }

  async redo() {
    await this.travel("redo");
  }

  /** After a conflict: take the other's version, or put this edit on top of it. */
  async settle(mine: boolean) {
    const edit = this.conflict?.edit;
    this.conflict = null;
    if (!mine) {
      this.onDrop?.();
      drops.count += 1;
    }
    await this.load();
    if (mine && edit) await this.save(edit);
  }

  private async send(edit: Edit): Promise<Problem | null> {
    if (!this.job) return null;
    this.saving = true;
    this.say("saving …");
    try {
      const body = { base_revision: this.job.revision, edit };
      this.accept(
        await askOnce((once) =>
          api.POST("/api/jobs/{job_id}/edits", { ...once, params: { path: { job_id: this.id } }, body }),
        ),
      );
      return null;
    } catch (reason) {
      return this.refuse(reason, edit);
    } finally {
      this.saving = false;
    }
  }

  private async travel(way: "undo" | "redo") {
    if (!this.job) return;
    try {
      const body = { base_revision: this.job.revision };
      this.accept(
        await askOnce((once) =>
          api.POST(`/api/jobs/{job_id}/${way}`, { ...once, params: { path: { job_id: this.id } }, body }),
        ),
      );
    } catch (reason) {
      this.problem = this.refuse(reason);
    }
  }

  private accept(job: Job) {
    this.job = job;
    this.problem = null;
    this.sayKept();
    page.goal = job.document.goal ?? null;
    page.undo = job.can_undo && session.mayEdit ? () => void this.undo() : null;
    page.redo = job.can_redo && session.mayEdit ? () => void this.redo() : null;
  }

  private refuse(reason: unknown, edit?: Edit): Problem {
    if (!(reason instanceof Problem)) throw reason;
    this.say("not saved");
    if (reason.status === 409 && edit) {
      this.conflict = {
        edit,
        gesture: String(reason.body.gesture),
        author: String(reason.body.author),
        revision: Number(reason.body.current_revision),
        differences: (reason.body.differences ?? []) as Conflict["differences"],
      };
    }
    return reason;
  }

  /** Say what is kept: after a save, and when an entry was given up. */
  sayKept() {
    if (!this.job) return;
    this.say(`saved ${new Date(this.job.at).toTimeString().slice(0, 5)} rev ${this.job.revision}`);
  }

  private say(text: string) {
    page.saved = text;
  }
}
