import type { Session } from './session';

/** A marketplace that takes changes as lines: those that come at the same time travel together. */
export type LineSending<L, R> = {
  /** The most lines that it takes in one go, by its rules. */
  most: number;
  /** How many goes may be under way at the same time. */
  goes: number;
  /** Sends lines and answers each, in their order; fails as a whole when nothing is known of any. */
  send(lines: L[]): Promise<R[]>;
};

type Waiting<L, R> = { line: L; resolve: (row: R) => void; reject: (error: unknown) => void };

const gatherMs = 30;

/**
 * Gathers lines while a go is under way, or for a moment when none is, and sends them together. Urgent lines do not
 * wait for a go that is under way.
 */
export class LineCollector<L, R> {
  readonly #sending: LineSending<L, R>;
  #waiting: Waiting<L, R>[] = [];
  #urgent: Waiting<L, R>[] = [];
  #under = 0;
  #most: number;
  #timer: NodeJS.Timeout | null = null;

  constructor(sending: LineSending<L, R>) {
    this.#sending = sending;
    this.#most = sending.most;
  }

  /** How many lines go together at present. */
  get size(): number {
    return this.#most;
  }

  /** It was too much for them: fewer at a time from now on. */
  shrink(): void {
    this.#most = Math.max(1, Math.floor(this.#most / 2));
  }

  add(line: L, urgent = false): Promise<R> {
    return new Promise((resolve, reject) => {
      (urgent ? this.#urgent : this.#waiting).push({ line, resolve, reject });
      this.#timer ??= setTimeout(() => {
        this.#timer = null;
        this.#flush();
      }, gatherMs);
    });
  }

  #flush(): void {
    if (this.#urgent.length) void this.#go(this.#urgent.splice(0, this.#most));
    while (this.#under < this.#sending.goes && this.#waiting.length) void this.#go(this.#waiting.splice(0, this.#most));
  }

  async #go(some: Waiting<L, R>[]): Promise<void> {
    this.#under++;
    try {
      const rows = await this.#sending.send(some.map((one) => one.line));
      for (const [index, one] of some.entries()) {
        const row = rows[index];
        if (row === undefined) one.reject(new Error('a line was not answered'));
        else one.resolve(row);
      }
    } catch (error) {
      for (const one of some) one.reject(error);
    } finally {
      this.#under--;
      this.#flush();
    }
  }
}

/** One collector for each account of a connector: sessions come and go, the account stays. */
export function collectors<L, R>(
  make: (session: { current: Session }) => LineSending<L, R>,
): (session: Session) => LineCollector<L, R> {
  const known = new Map<string | Session, { holder: { current: Session }; collector: LineCollector<L, R> }>();
  return (session) => {
    const key = session.account ?? session;
    const found = known.get(key);
    if (found) {
      found.holder.current = session;
      return found.collector;
    }
    const holder = { current: session };
    const collector = new LineCollector(make(holder));
    known.set(key, { holder, collector });
    return collector;
  };
}
