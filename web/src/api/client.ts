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
}

/** A refusal as the server words it (problem+json). */
export class Problem extends Error {
  readonly status: number;
  readonly errors: FieldError[];
  readonly body: Record<string, unknown>;

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

/** What every request of our own carries beside its body. */
export const ownHeaders = (): Record<string, string> => ({ "X-CSRFToken": token, "X-Units": units });

export const api = createClient<paths>({ baseUrl: "/", fetch: (request) => globalThis.fetch(request) });
api.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", token);
    request.headers.set("X-Units", units);
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
