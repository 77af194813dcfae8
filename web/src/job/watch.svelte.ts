import { api, ask, Problem, type Schemas } from "../api/client";
import { session } from "../session.svelte";
import type { JobEditor } from "./editor.svelte";

const EVERY = 2000; // ms between two looks
const SHOWN = 30_000; // ms that somebody's change stays said

/** Looks every other second whether somebody else has changed the job, brings their version, and says so. */
export class Watch {
  /** The newest change that another person made while the job was open here. */
  theirs = $state<Schemas["RevisionRow"] | null>(null);
  private hide = 0;

  /** `busy` says that something is being tried or saved here: then their version waits, and is only told of. */
  constructor(editor: () => JobEditor, busy: () => boolean) {
    $effect(() => {
      const timer = window.setInterval(() => void this.look(editor(), busy()), EVERY);
      return () => window.clearInterval(timer);
    });
  }

  private async look(editor: JobEditor, busy: boolean) {
    if (!editor.job || editor.saving || editor.conflict || document.hidden) return;
    try {
      const params = { path: { job_id: editor.id } };
      const found = await ask(api.GET("/api/jobs/{job_id}/pulse", { params, headers: { "X-Waiting": "1" } }));
      if (!editor.job || found.number <= editor.job.revision || editor.saving) return;
      if (found.author !== session.person?.name) {
        this.theirs = found;
        window.clearTimeout(this.hide);
        this.hide = window.setTimeout(() => (this.theirs = null), SHOWN);
      }
      if (!busy) await editor.load();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason; // the next look may reach the server again
    }
  }
}
