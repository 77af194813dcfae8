import { vi } from "vitest";

interface Asked {
  call: string;
  body: Record<string, unknown>;
  headers: Headers;
}
type Reply = unknown | ((asked: Asked) => unknown);

/** A refusal, as the server words it. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly body: Record<string, unknown> = {},
  ) {}
}

/** Stands in for the server: answers by method and path, and remembers what it was asked. */
export class Server {
  readonly asked: Asked[] = [];
  /** Calls wait here until they are let go, where `held` names them. */
  private readonly waiting: { call: string; go: () => void }[] = [];
  held = "";

  constructor(private readonly replies: Record<string, Reply>) {
    vi.stubGlobal("fetch", (request: Request) => this.answer(request));
  }

  /** How often, and with what, a call was made. */
  calls(call: string): Asked[] {
    return this.asked.filter((one) => one.call.startsWith(call));
  }

  say(call: string, reply: Reply) {
    this.replies[call] = reply;
  }

  /** Let the oldest (or newest) held call be answered. */
  async release(which: "oldest" | "newest" = "oldest") {
    const one = which === "oldest" ? this.waiting.shift() : this.waiting.pop();
    one?.go();
    await settle();
  }

  private async answer(request: Request): Promise<Response> {
    const url = new URL(request.url, "http://here");
    const call = `${request.method} ${url.pathname}${url.search}`;
    const text = await request.text();
    const asked = { call, body: text ? JSON.parse(text) : {}, headers: request.headers };
    this.asked.push(asked);
    const name = Object.keys(this.replies)
      .sort((a, b) => b.length - a.length)
      .find((one) => call.startsWith(one));
    if (!name) throw new Error(`nobody answers ${call}`);
    let reply = this.replies[name];
    reply = typeof reply === "function" ? (reply as (asked: Asked) => unknown)(asked) : reply;
    if (this.held && call.startsWith(this.held))
      await new Promise<void>((go) => this.waiting.push({ call, go }));
    if (request.signal.aborted) throw new DOMException("aborted", "AbortError");
    if (reply instanceof Error) throw reply;
    const [status, body] = reply instanceof Refusal ? [reply.status, reply.body] : [200, reply];
    return new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
  }
}

/** Everything that is under way has come back. */
export async function settle() {
  for (let turn = 0; turn < 12; turn++) await vi.advanceTimersByTimeAsync(0);
}
