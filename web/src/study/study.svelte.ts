import { Problem } from "../api/client";
import type { OperationBench } from "../operation/bench.svelte";

/** A study of one operation: asked when it opens and again whenever the bench repaints; the latest wins. */
export class Study<T> {
  answer = $state.raw<T | null>(null);
  problem = $state("");
  stale = $state(true);
  private turn = 0;

  constructor(
    bench: OperationBench,
    private readonly load: () => Promise<T>,
  ) {
    $effect(() => {
      void bench.evaluation;
      void this.ask();
    });
  }

  async ask() {
    const mine = ++this.turn;
    this.stale = true;
    try {
      const answer = await this.load();
      if (mine !== this.turn) return;
      this.answer = answer;
      this.problem = "";
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (mine === this.turn) this.problem = reason.message;
    }
    if (mine === this.turn) this.stale = false;
  }
}
