import { api, ask, askOnce, Problem, type Schemas } from "../api/client";

export type Ward = Schemas["WardOut"];
export type Diagnosis = Schemas["DiagnosisOut"];
export type Suspect = Schemas["SuspectOut"];

/** What is seen and what looks found, of one operation of a job or of a kind alone; the newest question wins. */
export class Clinic {
  ward = $state.raw<Ward | null>(null);
  found = $state.raw<Diagnosis | null>(null);
  seen = $state<string[]>([]);
  answers = $state<Record<string, boolean>>({});
  problem = $state("");
  busy = $state(false);
  private turn = 0;

  /** `limit`: where it is opened from one, what that speaks of is taken as seen. */
  constructor(
    readonly kind: string,
    readonly at: { job: number; operation: string } | null,
    readonly limit = "",
  ) {}

  async open() {
    await this.guard(async () => {
      this.ward = await ask(api.GET("/api/clinic/{kind}", { params: { path: { kind: this.kind } } }));
      const first = this.limit && this.ward.symptoms.find((one) => one.limits.includes(this.limit));
      if (first && !this.seen.length) this.seen = [first.name];
      await this.ask();
    });
  }

  toggle(name: string) {
    this.seen = this.seen.includes(name) ? this.seen.filter((one) => one !== name) : [...this.seen, name];
    void this.guard(() => this.ask());
  }

  answer(name: string, yes: boolean | null) {
    const { [name]: _, ...others } = this.answers;
    this.answers = yes === null ? others : { ...others, [name]: yes };
    void this.guard(() => this.ask());
  }

  /** A whole round at once: what was ticked is there, the rest is as planned. */
  answerAll(looks: string[], there: string[]) {
    this.answers = { ...this.answers, ...Object.fromEntries(looks.map((one) => [one, there.includes(one)])) };
    void this.guard(() => this.ask());
  }

  private async ask() {
    if (!this.seen.length && !Object.keys(this.answers).length) {
      this.found = null;
      return;
    }
    const turn = ++this.turn;
    this.busy = true;
    const body = { seen: $state.snapshot(this.seen), answers: $state.snapshot(this.answers) };
    const found = this.at
      ? await ask(
          api.POST("/api/jobs/{job_id}/operations/{operation}/suspects", {
            params: { path: { job_id: this.at.job, operation: this.at.operation } },
            body,
          }),
        )
      : await ask(api.POST("/api/clinic/{kind}/suspects", { params: { path: { kind: this.kind } }, body }));
    if (turn === this.turn) {
      this.found = found;
      this.busy = false;
    }
  }

  /** The change that a cause asks for, run on the engine. */
  offer(cause: string) {
    const { job, operation } = this.at!;
    const path = { job_id: job, operation, cause };
    return ask(api.POST("/api/jobs/{job_id}/operations/{operation}/suspects/{cause}", { params: { path } }));
  }

  /** Keep how a change turned out. */
  log(cause: string, turnedOut: Schemas["TroubleIn"]["turned_out"], words: string) {
    const { job, operation } = this.at!;
    const body = { cause, turned_out: turnedOut, words, seen: this.seen, answers: this.answers };
    return askOnce((once) =>
      api.POST("/api/jobs/{job_id}/operations/{operation}/troubles", {
        ...once,
        params: { path: { job_id: job, operation } },
        body,
      }),
    );
  }

  async guard(deed: () => Promise<unknown>) {
    this.problem = "";
    try {
      await deed();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      this.busy = false;
      this.problem = reason.message;
    }
  }
}
