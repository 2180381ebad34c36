/**
 * Keeps one account under its marketplace's rate: turns are given evenly, after a small burst. A marketplace that
 * says "too many" pushes all further turns back.
 */
export class Pacer {
  #perMinute: number;
  #next = 0;
  readonly #now: () => number;

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

  /** How long the next turn has to wait, and takes it. */
  take(): number {
    const gap = 60_000 / this.#perMinute;
    const burst = 3;
    const now = this.#now();
    const slot = Math.max(this.#next, now - burst * gap);
    this.#next = slot + gap;
    return Math.max(0, slot - now);
  }

  async turn(): Promise<void> {
    const wait = this.take();
    if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
  }
}
