import { flushSync } from "svelte";

/** Run what needs a component around it; gives what it made, and what ends it. */
export function rooted<T>(make: () => T): [T, () => void] {
  let made!: T;
  const end = $effect.root(() => {
    made = make();
  });
  flushSync();
  return [made, end];
}
