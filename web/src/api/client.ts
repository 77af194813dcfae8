import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Display = Schemas["DisplayOut"];

export interface FieldError {
  field: string;
  message: string;
  bound?: string;
  readings?: string[];
  suggestions?: string[];
  /** Where in what was typed the words stand that it is about: from and to. */
  where?: [number, number] | null;
}

/** A refusal as the server words it (problem+json). */
export class Problem extends Error {
  readonly status: number;
  readonly errors: FieldError[];
  readonly body: Record<string, unknown>;

  /** Nothing is wrong with what was asked: whoever answers is away. */
  get away(): boolean {
    return [0, 502, 503, 504].includes(this.status);
  }

  /** The same may well be taken later: somebody is away, or signed out. */
  get passing(): boolean {
    return this.away || this.status === 401;
  }

  constructor(status: number, body: Record<string, unknown>) {
    super(typeof body.title === "string" ? body.title : "The server did not answer as it should.");
    this.status = status;
    this.errors = Array.isArray(body.errors) ? (body.errors as FieldError[]) : [];
    this.body = body;
  }
}

let token = "";
export const rememberToken = (value: string) => (token = value);
let units = "mm";
/** Sentences are told in the reader's units. */
export const rememberUnits = (value: string) => (units = value);

let signedOut = () => {};
/** What to do when the server knows this person no more. */
export const onSignedOut = (then: () => void) => (signedOut = then);

const random = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join(
    "",
  );
/** Tells this page from the same person's others: of one page only the newest question counts. */
const thisPage = random();

/** What every request of our own carries beside its body. */
export const ownHeaders = (): Record<string, string> => ({
  "X-CSRFToken": token,
  "X-Units": units,
  "X-Page": thisPage,
});

export const api = createClient<paths>({ baseUrl: "/", fetch: (request) => globalThis.fetch(request) });
api.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", token);
    request.headers.set("X-Units", units);
    request.headers.set("X-Page", thisPage);
    return request;
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a `Problem`. A server that cannot be reached is a problem too. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch (reason) {
    if (reason instanceof DOMException && reason.name === "AbortError") throw reason;
    throw new Problem(0, {
      title: "The server cannot be reached. What you typed is kept here; it is not saved yet.",
    });
  }
  if (answer.response.status === 401 && !answer.response.url.endsWith("/api/session")) signedOut();
  if (!answer.response.ok)
    throw new Problem(answer.response.status, (answer.error ?? {}) as Record<string, unknown>);
  return answer.data as T;
}

const FIRST_WAIT = 300; // ms, doubled from try to try
const LAST_WAIT = 3000;

/** A save, sent again while nobody answers: its key lets the server recognise what it has written already. */
export async function askOnce<T>(
  call: (once: { headers: Record<string, string> }) => Promise<Answer<T>>,
): Promise<T> {
  const key = random();
  for (let wait = FIRST_WAIT; ; wait *= 2) {
    try {
      return await ask(call({ headers: { "Idempotency-Key": key } }));
    } catch (reason) {
      if (!(reason instanceof Problem) || !reason.away || wait > LAST_WAIT) throw reason;
      await new Promise((again) => setTimeout(again, wait));
    }
  }
}
