import { api, ask, Problem, type Schemas } from "../api/client";

type Kind = Schemas["StudyIn"]["kind"];
const LOOK_EVERY = 500; // ms

/** A big study of a whole part: begun when it is looked at, watched until it is done, stopped when asked to. */
export class PartStudy {
  row = $state.raw<Schemas["StudyOut"] | null>(null);
  problem = $state<Problem | null>(null);
  private timer = 0;

  constructor(
    private job: number,
    private kind: Kind,
  ) {}

  get busy(): boolean {
    return !this.row ? !this.problem : this.row.state === "waiting" || this.row.state === "running";
  }

  begin = () => {
    this.row = this.problem = null;
    const params = { path: { job_id: this.job } };
    return this.take(() =>
      api.POST("/api/jobs/{job_id}/part-studies", { params, body: { kind: this.kind } }),
    );
  };

  stop = () => {
    if (!this.row) return;
    const params = { path: { job_id: this.job, study_id: this.row.id } };
    return this.take(() => api.POST("/api/jobs/{job_id}/part-studies/{study_id}/cancel", { params }));
  };

  leave = () => clearTimeout(this.timer);

  private look = () => {
    const params = { path: { job_id: this.job, study_id: this.row!.id } };
    return this.take(() => api.GET("/api/jobs/{job_id}/part-studies/{study_id}", { params }));
  };

  private async take(call: () => Parameters<typeof ask<Schemas["StudyOut"]>>[0]): Promise<void> {
    clearTimeout(this.timer);
    try {
      this.row = await ask(call());
      this.problem = null;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      this.problem = reason;
    }
    if (this.row && this.busy) this.timer = window.setTimeout(() => void this.look(), LOOK_EVERY);
  }
}
