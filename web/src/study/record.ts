import { ownHeaders, Problem } from "../api/client";

export interface Sample {
  depth: number;
  thrust: number;
  torque: number;
}

const EVERY = 60; // ms between two pictures

/** Record a hole: samples arrive line by line; `seen` is told of all so far, a few times a second. */
export async function recordHole(
  path: { job_id: number; operation: string },
  hole: number,
  seen: (samples: Sample[]) => void,
): Promise<void> {
  const answer = await fetch(`/api/jobs/${path.job_id}/operations/${path.operation}/record`, {
    method: "POST",
    headers: { "Content-Type": "application/json", ...ownHeaders() },
    body: JSON.stringify({ hole }),
  });
  if (!answer.ok || !answer.body) throw new Problem(answer.status, await answer.json());
  const reader = answer.body.getReader();
  const words = new TextDecoder();
  const samples: Sample[] = [];
  let rest = "";
  let last = 0;
  let kept = false;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const lines = (rest + words.decode(value, { stream: true })).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      const one = JSON.parse(line) as Sample & { kept?: number; error?: string };
      if (one.error) throw new Error(one.error);
      if (one.kept) kept = true;
      else samples.push(one);
    }
    if (performance.now() - last > EVERY) {
      last = performance.now();
      seen([...samples]);
    }
  }
  seen(samples);
  if (!kept) throw new Error("The dynamometer stopped before the hole was done; nothing was kept.");
}
