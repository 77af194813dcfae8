import {
  api,
  ask,
  onSignedOut,
  rememberToken,
  rememberUnits,
  type Display,
  type Schemas,
} from "./api/client";
import { forget } from "./trial/offline";

/** Who is signed in and how they like the bench. */
class Session {
  person = $state<Schemas["Person"] | null>(null);
  ready = $state(false);
  /** The server knows this person no more; the page stays as it is until they sign in again. */
  ended = $state(false);

  get units(): "mm" | "inch" {
    return this.person?.units ?? "mm";
  }

  get mayEdit(): boolean {
    return this.person?.role === "engineer" || this.person?.role === "administrator";
  }

  /** Whether notes and measurements may be written. */
  get mayNote(): boolean {
    return this.person?.role !== "reader";
  }

  /** The sign of the shop's own currency. */
  get currency(): string {
    return this.person?.currency ?? "€";
  }

  get letterKeys(): boolean {
    return this.person?.letter_keys ?? true;
  }

  async load() {
    this.accept(await ask(api.GET("/api/session")));
    this.ready = true;
  }

  async signIn(name: string, password: string, code = "") {
    // the token of a session that ended opens nothing
    if (this.ended) rememberToken((await ask(api.GET("/api/session"))).token);
    this.accept(await ask(api.POST("/api/session", { body: { name, password, code } })));
  }

  async signOut() {
    await ask(api.DELETE("/api/session"));
    forget();
    await this.load();
  }

  async prefer(change: Schemas["PreferencesPatch"]) {
    if (this.person) this.accept({ ...this.person, ...(change as Partial<Schemas["Person"]>) });
    this.accept(await ask(api.PATCH("/api/session/preferences", { body: change })));
  }

  accept(person: Schemas["Person"]) {
    this.person = person;
    this.ended = false;
    rememberToken(person.token);
    rememberUnits(person.units);
    document.documentElement.dataset.theme = person.theme;
  }
}

export const session = new Session();
onSignedOut(() => {
  if (session.person?.name) session.ended = true;
});

/** A value in the units shown. */
export function shown(display: Display | null | undefined): string {
  if (!display) return "–";
  return session.units === "inch" ? display.inch : display.metric;
}

/** The same value in the other units, for the small print beside it. */
export function other(display: Display | null | undefined): string {
  if (!display) return "";
  return session.units === "inch" ? display.metric : display.inch;
}
