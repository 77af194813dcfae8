/** Counts how often a person dropped their own change for somebody else's: fields then show what is kept. */
class Drops {
  count = $state(0);
}

export const drops = new Drops();

const kept = new Map<string, unknown>();

/** What was typed into a form that is not saved yet: it survives a form that is closed by mistake, and is reopened as left. */
export class Draft<T extends object> {
  value = $state() as T;
  /** Whether the form was left before with something in it. */
  reopened = $state(false);

  constructor(
    private readonly key: string,
    private readonly start: () => T,
  ) {
    const left = kept.get(key) as T | undefined;
    this.reopened = left !== undefined;
    this.value = left ?? start();
    const fresh = JSON.stringify(start());
    $effect(() => {
      const now = $state.snapshot(this.value) as T;
      if (JSON.stringify(now) === fresh) kept.delete(key);
      else kept.set(key, now);
    });
  }

  /** The form is done with: nothing comes back. */
  done() {
    this.value = this.start();
    this.reopened = false;
    kept.delete(this.key);
  }
}
