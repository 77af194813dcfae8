/** Walk a list by its own links or buttons: j, k and the arrows move the focus; what has the focus answers to Enter and Space. */
export function step(list: HTMLElement | undefined | null, by: 1 | -1): void {
  const stops = [...(list?.querySelectorAll<HTMLElement>("[data-stop]") ?? [])];
  if (!stops.length) return;
  const at = stops.findIndex((one) => one === document.activeElement);
  const next = at < 0 ? stops.findIndex((one) => one.dataset.stop === "current") : at + by;
  const stop = stops[Math.max(0, Math.min(next, stops.length - 1))];
  stop?.focus();
  stop?.scrollIntoView({ block: "nearest" });
}

/** Arrow keys inside a list that has the focus. */
export function arrows(event: KeyboardEvent): void {
  const target = event.target as HTMLElement;
  if (!target.matches("[data-stop]")) return;
  if (event.key === "ArrowDown" || event.key === "ArrowUp") {
    step(event.currentTarget as HTMLElement, event.key === "ArrowDown" ? 1 : -1);
    event.preventDefault();
  }
}
