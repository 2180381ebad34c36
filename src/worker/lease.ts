/** So long a worker holds an account before it has to say so again. */
export const leaseMs = 8_000;
/** It stops sending this long before: a request has to begin while the lease holds. */
const marginMs = 500;

/**
 * A worker's own knowledge of how long it may send for an account. It is counted from before it asked for the lease, by a
 * clock that nobody sets: one that was stopped for a while knows that its time is over before it sends anything.
 */
export class Lease {
  readonly #now: () => number;
  #until = Number.NEGATIVE_INFINITY;

  constructor(now: () => number = () => performance.now()) {
    this.#now = now;
  }

  /** The moment to hand to `renewed`, taken before the database is asked. */
  ask(): number {
    return this.#now();
  }

  renewed(askedAt: number): void {
    this.#until = askedAt + leaseMs - marginMs;
  }

  get holds(): boolean {
    return this.#now() < this.#until;
  }
}
