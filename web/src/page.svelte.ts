import type { Schemas } from "./api/client";

type Goal = Schemas["Document"]["goal"];

export interface Crumb {
  label: string;
  href?: string;
}

/** What the view on show puts into the head of the page. */
class Page {
  crumbs = $state<Crumb[]>([]);
  saved = $state("");
  goal = $state<Goal | null>(null);
  setGoal = $state<((goal: Goal) => void) | null>(null);
  undo = $state<(() => void) | null>(null);
  redo = $state<(() => void) | null>(null);
  dialog = $state<"keys" | "search" | null>(null);

  open(title: string, crumbs: Crumb[]) {
    this.crumbs = crumbs;
    this.saved = "";
    this.goal = null;
    this.setGoal = null;
    this.undo = null;
    this.redo = null;
    document.title = `${title} · Arrow Bench`;
  }
}

export const page = new Page();
