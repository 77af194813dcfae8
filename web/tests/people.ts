import { session } from "../src/session.svelte";

const WORN = {
  name: "Ida",
  role: "engineer",
  units: "mm",
  theme: "light",
  token: "t1",
  letter_keys: true,
  currency: "€",
};

/** Sign somebody in without asking anybody. */
export const signedIn = (change: Record<string, unknown> = {}) =>
  session.accept({ ...WORN, ...change } as unknown as Parameters<typeof session.accept>[0]);
