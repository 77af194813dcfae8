import type { Scrub } from "../scrub.svelte";

/** Arrow keys walk the moments of a map, page keys ten at once. */
export function strokeKeys(scrub: Scrub): (event: KeyboardEvent) => void {
  return (event) => {
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[
      event.key
    ];
    if (by === undefined) return;
    scrub.step(by);
    event.preventDefault();
  };
}
