import { api, askOnce, Problem, type Schemas } from "../api/client";
import { Draft } from "../lib/draft.svelte";
import { session } from "../session.svelte";

type Given = Omit<Schemas["MeasurementIn"], "units" | "sure" | "operation">;

/** A size being written down: a refusal is said beside its field, a doubtful reading is asked about once more. */
export class Measuring {
  refusal = $state<Problem | null>(null);
  readonly draft: Draft<{
    commanded: string | null;
    measured: string;
    temperature: string;
    uncertainty: string;
  }>;
  private asked: Given | null = null;

  constructor(
    private readonly job: number,
    private readonly operation: string,
    place: string,
  ) {
    this.draft = new Draft(`${place} ${job} ${operation}`, () => ({
      commanded: null,
      measured: "",
      temperature: "20",
      uncertainty: "",
    }));
  }

  /** What is commanded: as planned until something is written, even where that is nothing yet. */
  commanded(planned = ""): string {
    return this.draft.value.commanded ?? planned;
  }

  /** Why the reading cannot be what the instrument says, where it cannot. */
  get doubt(): string | null {
    const error = this.refusal?.errors[0] as { doubt?: boolean; message: string } | undefined;
    return error?.doubt ? error.message : null;
  }

  /** What was refused for another reason than a field of the form. */
  get said(): string | null {
    if (!this.refusal || this.doubt || this.refusal.errors.length) return null;
    return this.refusal.message;
  }

  async send(given: Given, sure = false): Promise<boolean> {
    this.asked = given;
    try {
      const body = { ...given, operation: this.operation, units: session.units, sure };
      const params = { path: { job_id: this.job } };
      await askOnce((once) => api.POST("/api/jobs/{job_id}/measurements", { ...once, params, body }));
      this.refusal = null;
      this.draft.value = { ...this.draft.value, commanded: null, measured: "" };
      return true;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      this.refusal = reason;
      return false;
    }
  }

  /** It was read again, and is what the instrument says: it is kept, and does not count. */
  async insist(): Promise<boolean> {
    return this.asked ? this.send(this.asked, true) : false;
  }
}
