type Waiting = { go: () => void };

/**
 * Keeps one account under its marketplace's rate: turns are given evenly, after a small burst, urgent ones first. A
 * marketplace that says "too many" pushes all further turns back.
 */
export class Pacer {
  #perMinute: number;
  #next = 0;
  readonly #now: () => number;
  readonly #urgent: Waiting[] = [];
  readonly #others: Waiting[] = [];
  #timer: NodeJS.Timeout | null = null;

  constructor(perMinute: number, now: () => number = Date.now) {
    this.#perMinute = perMinute;
    this.#now = now;
  }

  setRate(perMinute: number): void {
    this.#perMinute = perMinute;
  }

  backOff(milliseconds: number): void {
    this.#next = Math.max(this.#next, this.#now() + milliseconds);
  }

  /** How many wait for their turn. */
  get waiting(): number {
    return this.#urgent.length + this.#others.length;
  }

  /** How long the next turn has to wait, and takes it. */
  take(): number {
    const gap = 60_000 / this.#perMinute;
    const burst = 3;
    const now = this.#now();
    const slot = Math.max(this.#next, now - burst * gap);
    this.#next = slot + gap;
    return Math.max(0, slot - now);
  }

  /** Resolves when it is this request's turn; one that is urgent goes before all that are not. */
  turn(urgent = false): Promise<void> {
    return new Promise((go) => {
      (urgent ? this.#urgent : this.#others).push({ go });
      this.#serve();
    });
  }

  /** The slot is taken first and given to whoever is most urgent when it comes. */
  #serve(): void {
    if (this.#timer || this.waiting === 0) return;
    const wait = this.take();
    if (wait === 0) {
      this.#give();
      return;
    }
    this.#timer = setTimeout(() => {
      this.#timer = null;
      // They may have pushed the turns back while this one was waited for.
      const more = this.#next - 60_000 / this.#perMinute - this.#now();
      if (more > 1_000) {
        this.#next -= 60_000 / this.#perMinute;
        this.#serve();
      } else this.#give();
    }, wait);
  }

  #give(): void {
    (this.#urgent.shift() ?? this.#others.shift())?.go();
    this.#serve();
  }
}
