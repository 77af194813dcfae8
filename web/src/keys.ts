import { createKeybindingsHandler } from "tinykeys";
import { page } from "./page.svelte";
import { session } from "./session.svelte";

type Handler = (event: KeyboardEvent) => void;

const typing = (event: KeyboardEvent) => {
  const target = event.target as HTMLElement | null;
  return !!target?.closest("input, textarea, select, [contenteditable]");
};

/** A key that acts only when nobody is typing and no dialog is open, but for its own; letters can be switched off by the person. */
export function guarded(bindings: Record<string, Handler>, ofDialog = false): Record<string, Handler> {
  return Object.fromEntries(
    Object.entries(bindings).map(([key, handler]) => [
      key,
      (event: KeyboardEvent) => {
        const letter = /^[a-z0-9?/[\]]$/i.test(event.key);
        const elsewhere = !ofDialog && document.querySelector("[role=dialog]");
        if (typing(event) || elsewhere || (letter && !session.letterKeys)) return;
        event.preventDefault();
        handler(event);
      },
    ]),
  );
}

/** Keys of every page. */
export function listen(bindings: Record<string, Handler>): () => void {
  const handler = createKeybindingsHandler(bindings);
  window.addEventListener("keydown", handler);
  return () => window.removeEventListener("keydown", handler);
}

/** F1 opens and closes the help, also while somebody is typing. */
function help(event: KeyboardEvent) {
  if (event.key !== "F1") return;
  event.preventDefault();
  if (page.help) page.help = false;
  else page.explain();
}

export function pageKeys(): () => void {
  const letters = listen({
    ...guarded({
      u: () => void session.prefer({ units: session.units === "mm" ? "inch" : "mm" }),
      "Shift+?": () => page.explain(),
      "?": () => page.explain(),
      "/": () => (page.dialog = "search"),
    }),
    "$mod+z": (event) => {
      if (typing(event) || !page.undo) return;
      event.preventDefault();
      page.undo();
    },
    "$mod+Shift+z": (event) => {
      if (typing(event) || !page.redo) return;
      event.preventDefault();
      page.redo();
    },
    "$mod+y": (event) => {
      if (typing(event) || !page.redo) return;
      event.preventDefault();
      page.redo();
    },
  });
  window.addEventListener("keydown", help);
  return () => {
    letters();
    window.removeEventListener("keydown", help);
  };
}
