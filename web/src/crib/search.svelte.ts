import { api, ask, type Schemas } from "../api/client";

export const FACETS = [
  "kind",
  "diameter",
  "pitch",
  "shape",
  "circle",
  "nose_radius",
  "geometry",
  "grade",
  "tool_class",
  "hand",
  "section",
  "angle",
] as const;
export type FacetName = (typeof FACETS)[number];
type Row = Schemas["ToolRow"];
const PAGE = 60;

/** One search of the crib: words and facets in, rows page by page out; the latest question wins. */
export class ToolSearch {
  q = $state("");
  chosen = $state<Partial<Record<FacetName, string[]>>>({});
  letter = $state("");
  stocked = $state(false);
  archived = $state(false);
  matched = $state(0);
  total = $state(0);
  facets = $state<Schemas["Facet"][]>([]);
  problem = $state("");
  asked = $state(false);
  private pages = $state<Record<number, Row[]>>({});
  private under = new Set<number>();
  private turn = 0;

  row(place: number): Row | undefined {
    return this.pages[Math.floor(place / PAGE)]?.[place % PAGE];
  }

  toggle(facet: FacetName, value: string) {
    const there = this.chosen[facet] ?? [];
    const next = there.includes(value) ? there.filter((v) => v !== value) : [...there, value];
    this.chosen = { ...this.chosen, [facet]: next };
  }

  /** Ask again from the top. */
  async start() {
    const turn = ++this.turn;
    this.under.clear();
    try {
      const page = await this.fetch(0);
      if (turn !== this.turn) return;
      this.pages = { 0: page.rows };
      this.matched = page.matched;
      this.total = page.total;
      this.facets = page.facets;
      this.problem = "";
    } catch (reason) {
      if (turn === this.turn) this.problem = (reason as Error).message;
    }
    this.asked = true;
  }

  /** Fetch what the rows on view still lack. */
  async need(first: number, last: number) {
    const turn = this.turn;
    for (let page = Math.floor(first / PAGE); page <= Math.floor(last / PAGE); page++) {
      if (this.pages[page] || this.under.has(page)) continue;
      this.under.add(page);
      const found = await this.fetch(page * PAGE).catch(() => null);
      this.under.delete(page);
      if (found && turn === this.turn) this.pages = { ...this.pages, [page]: found.rows };
    }
  }

  private fetch(offset: number) {
    const query = {
      q: this.q,
      ...this.chosen,
      letter: this.letter as Schemas["ToolRow"]["kind"] as never,
      stocked: this.stocked,
      archived: this.archived,
      offset,
      limit: PAGE,
    };
    return ask(api.GET("/api/crib/tools", { params: { query } }));
  }
}
