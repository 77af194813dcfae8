import type { Schemas } from "./api/client";

type Goal = Schemas["Document"]["goal"];

export interface Crumb {
  label: string;
  href?: string;
}

export interface Action {
  label: string;
  key?: string;
  run: () => void;
}

/** What the view on show puts into the head of the page. */
class Page {
  crumbs = $state<Crumb[]>([]);
  saved = $state("");
  goal = $state<Goal | null>(null);
  setGoal = $state<((goal: Goal) => void) | null>(null);
  undo = $state<(() => void) | null>(null);
  redo = $state<(() => void) | null>(null);
  dialog = $state<"search" | null>(null);
  /** Whether the help is open, what is looked for in it, and the kind of operation on show, whose limits it tells. */
  help = $state(false);
  asked = $state("");
  kind = $state("");
  /** What can be done on this page, for the search: words, key, deed. */
  actions = $state.raw<Action[]>([]);

  open(title: string, crumbs: Crumb[]) {
    this.crumbs = crumbs;
    this.saved = "";
    this.goal = null;
    this.setGoal = null;
    this.undo = null;
    this.redo = null;
    this.kind = "";
    this.actions = [];
    document.title = `${title} · Arrow Bench`;
  }

  /** Open the help, at a word where one is given. */
  explain(words = "") {
    this.asked = words;
    this.help = true;
  }
}

export const page = new Page();
