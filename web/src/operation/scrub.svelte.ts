/** A place in the seconds of a cut: scrubbed by hand, stepped by keys, or played. */
export class Scrub {
  seconds = $state(0);
  playing = $state(false);
  private frame = 0;

  /** `stops` are the seconds at which something can be seen, rising. */
  constructor(private readonly stops: () => number[]) {}

  get total(): number {
    return this.stops().at(-1) ?? 0;
  }

  /** The last stop that has been reached; the first one at the start. */
  get index(): number {
    const stops = this.stops();
    let place = 0;
    while (place < stops.length - 1 && stops[place]! < this.seconds - 1e-9) place += 1;
    return place;
  }

  set(seconds: number) {
    this.pause();
    this.seconds = Math.max(0, Math.min(seconds, this.total));
  }

  goto(index: number) {
    const stops = this.stops();
    this.set(stops[Math.max(0, Math.min(index, stops.length - 1))] ?? 0);
  }

  step(by: number) {
    this.goto(this.index + by);
  }

  toggle() {
    if (this.playing) this.pause();
    else this.play();
  }

  pause() {
    this.playing = false;
    cancelAnimationFrame(this.frame);
  }

  /** Play the rest in about its own time, but within four to twelve seconds for the whole. */
  private play() {
    if (!this.total) return;
    if (this.seconds >= this.total - 1e-6) this.seconds = 0;
    const pace = this.total / Math.max(4, Math.min(12, this.total));
    let last = performance.now();
    this.playing = true;
    const tick = (now: number) => {
      if (!this.playing) return;
      this.seconds = Math.min(this.seconds + ((now - last) / 1000) * pace, this.total);
      last = now;
      if (this.seconds >= this.total) this.playing = false;
      else this.frame = requestAnimationFrame(tick);
    };
    this.frame = requestAnimationFrame(tick);
  }
}
