import type { Scrub } from "../scrub.svelte";

/** Arrow keys walk the strokes of a map. */
export function strokeKeys(scrub: Scrub): (event: KeyboardEvent) => void {
  return (event) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    scrub.step(by);
    event.preventDefault();
  };
}
