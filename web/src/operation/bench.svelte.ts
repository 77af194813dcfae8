import { editOf } from "./remedy";
import { api, ask, Problem, type Schemas } from "../api/client";
import type { JobEditor } from "../job/editor.svelte";
import { page } from "../page.svelte";
import { session } from "../session.svelte";
import { Scrub } from "./scrub.svelte";

export type Evaluation = Schemas["EvaluationOut"];
export type Candidate = Schemas["CandidateOut"];
type Entries = Record<string, string | number | boolean | null>;

/** What tells a candidate from the others: an insert may go several ways, after several others. */
export const nameOf = (candidate: Candidate): string =>
  [candidate.edge, candidate.way, ...candidate.steps.map((step) => step.title + step.edge)].join(" ");

const REST = 800; // ms without a nudge until the gesture is saved
const AWAY = 3000; // ms until a save that met nobody is tried again
const FOLLOW = 350; // ms without a nudge until ranking and tape follow

/** The live loop of one operation: try values, repaint, let ranking and tape follow, save when the hand rests. */
export class OperationBench {
  evaluation = $state.raw<Evaluation | null>(null);
  follow = $state.raw<Schemas["FollowOut"] | null>(null);
  /** Values tried and not saved yet, as they were typed. */
  tried = $state<Entries>({});
  problem = $state<Problem | null>(null);
  followProblem = $state<Problem | null>(null);
  stale = $state(true);
  following = $state(true);
  candidate = $state(0);
  pinned = $state<string[]>([]);
  private busy = false;
  private again = false;
  private rungs: Record<string, number> = {};
  private saveTimer = 0;
  private followTimer = 0;
  private following_: AbortController | null = null;

  /** A recorded trace that is laid over the map: (depth, value) points. */
  overlay = $state.raw<{ thrust: number[][]; torque: number[][] } | null>(null);

  /** Where in the cut the drawing stands, for kinds whose cut can be travelled. */
  readonly scrub = new Scrub(() => this.evaluation?.stops ?? []);

  constructor(
    readonly editor: JobEditor,
    readonly operation: string,
  ) {}

  /** Something stands in a field that was not taken yet: what others save waits, and meets it when it is. */
  typing = $state(false);

  /** Number and title of the operation, in the units shown. */
  get heading(): string {
    return this.entry ? `${this.entry.number} ${this.editor.told(this.entry.title)}` : "";
  }

  get entry() {
    return this.editor.job?.document.operations.find((one) => one.id === this.operation);
  }

  /** A setting as it was entered: what is being tried, else what is kept; empty where there is none. */
  kept(name: string, otherwise = ""): string {
    const entry = name in this.tried ? this.tried[name] : this.entry?.settings[name];
    return entry == null ? otherwise : String(entry);
  }

  get limits() {
    return this.evaluation?.limits ?? [];
  }

  /** Everything anew: after loading, a save, undo, or a change of units; what is tried stays tried. */
  async repaint() {
    this.rungs = {};
    await this.paint();
  }

  /** Try values as typed; a run of tries is saved as one gesture when the hand rests. */
  attempt(values: Entries) {
    if (!session.mayEdit) return;
    this.tried = { ...this.tried, ...values };
    page.saved = "not saved yet";
    window.clearTimeout(this.saveTimer);
    this.saveTimer = window.setTimeout(() => void this.save(), REST);
    void this.paint();
  }

  /** Walk a setting's ladder by so many rungs. */
  nudge(name: string, by: "fine" | "normal" | "coarse", direction: 1 | -1) {
    const ladder = this.evaluation?.ladders[name];
    if (!ladder || !session.mayEdit) return;
    const jump = by === "fine" ? 1 : ladder[by];
    const from = this.rungs[name] ?? ladder.place;
    const place = Math.max(0, Math.min(ladder.rungs.length - 1, from + direction * jump));
    this.rungs[name] = place;
    performance.mark("nudge");
    this.attempt({ [name]: ladder.rungs[place]! });
  }

  /** Forget an entry that is not wanted after all. */
  drop(name: string) {
    const { [name]: _, ...rest } = this.tried;
    this.tried = rest;
    if (!Object.keys(rest).length) {
      window.clearTimeout(this.saveTimer);
      this.editor.sayKept();
    }
    void this.paint();
  }

  /** Drop everything tried and not saved; the next repaint shows what is kept. */
  forget() {
    window.clearTimeout(this.saveTimer);
    this.tried = {};
    this.rungs = {};
  }

  /** Save what was tried, now; on leaving a field, or when the hand rests. */
  async save(): Promise<void> {
    window.clearTimeout(this.saveTimer);
    if (!Object.keys(this.tried).length || this.problem?.status === 422) return;
    const settings = $state.snapshot(this.tried);
    const saved = await this.editor.save({
      action: "set_settings",
      operation: this.operation,
      settings,
      units: session.units,
    });
    if (saved) {
      // what was nudged on since stays tried
      const left = Object.entries(this.tried).filter(([name, value]) => settings[name] !== value);
      this.tried = Object.fromEntries(left);
    } else if (this.editor.problem?.passing) this.saveTimer = window.setTimeout(() => void this.save(), AWAY);
  }

  async take(candidate: Candidate) {
    if (!session.mayEdit) return;
    await this.save(); // a run of nudges is a gesture of its own
    this.rungs = {};
    const { tool, settings, becomes, before } = candidate;
    await this.editor.save({
      action: "take_tool",
      operation: this.operation,
      tool,
      settings,
      becomes,
      before,
    });
  }

  /** Apply what a remedy or a way to go faster sets. */
  async apply(remedy: Schemas["RemedyOut"]) {
    if (!session.mayEdit) return;
    await this.save(); // a run of nudges is a gesture of its own
    this.rungs = {};
    await this.editor.save(editOf(this.operation, remedy));
  }

  /** What would move one limit, tried on the server. */
  relax(limit: string) {
    const path = "/api/jobs/{job_id}/operations/{operation}/limits/{limit}/relax" as const;
    const params = { path: { job_id: this.editor.id, operation: this.operation, limit } };
    return ask(api.POST(path, { params, body: this.body() }));
  }

  pin(candidate: Candidate) {
    const name = nameOf(candidate);
    this.pinned = this.pinned.includes(name)
      ? this.pinned.filter((one) => one !== name)
      : [...this.pinned, name].slice(-3);
  }

  remediesOf(name: string) {
    return this.follow && !this.following ? (this.follow.remedies[name] ?? []) : [];
  }

  /** One request in flight; the latest wins. */
  private async paint(): Promise<void> {
    this.stale = true;
    this.following = true;
    if (this.busy) {
      this.again = true;
      return;
    }
    this.busy = true;
    do {
      this.again = false;
      await this.request();
    } while (this.again);
    this.busy = false;
    window.clearTimeout(this.followTimer);
    this.followTimer = window.setTimeout(() => void this.followUp(), FOLLOW);
  }

  /** What a study of this operation with the values tried is asked with. */
  get question() {
    return { ...this.path(), body: this.body() };
  }

  private body() {
    return { settings: $state.snapshot(this.tried), units: session.units };
  }

  private path() {
    return { params: { path: { job_id: this.editor.id, operation: this.operation } } };
  }

  private async request() {
    try {
      const path = "/api/jobs/{job_id}/operations/{operation}/evaluate" as const;
      const evaluation = await ask(api.POST(path, { ...this.path(), body: this.body() }));
      if (!this.again) this.rungs = {};
      this.evaluation = evaluation;
      this.problem = null;
      this.stale = this.again;
      requestAnimationFrame(() => {
        if (performance.getEntriesByName("nudge").length) {
          performance.measure("nudge-to-paint", "nudge");
          performance.clearMarks("nudge");
        }
      });
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      this.problem = reason;
      this.stale = false;
    }
  }

  private async followUp() {
    this.following_?.abort();
    const mine = new AbortController();
    this.following_ = mine;
    try {
      const path = "/api/jobs/{job_id}/operations/{operation}/follow" as const;
      const follow = await ask(api.POST(path, { ...this.path(), body: this.body(), signal: mine.signal }));
      if (mine.signal.aborted) return;
      this.follow = follow;
      this.followProblem = null;
      this.following = this.busy;
    } catch (reason) {
      if (reason instanceof Problem) {
        this.followProblem = reason;
        this.following = false;
      } else if (!mine.signal.aborted) throw reason;
    }
  }
}
