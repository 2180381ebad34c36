import type { Data, Listing, Order } from './types';

/** In which ways a marketplace is strange at the moment; each is switched on by itself, on the control page. */
export type Oddities = {
  /** Reads show what was done only after so long. */
  lagMs: number;
  /** Lists are read so many at a time, however many were asked for; 0 for as many as were asked for. */
  mostAtOnce: number;
  /** A refresh token is good once, without any grace. */
  tokensOnce: boolean;
  /** Uploads that no listing shows are forgotten after so long; 0 for never. */
  uploadsMs: number;
  /** Fields that a change silently leaves as they were. */
  ignores: string[];
  /** What their house rules make of a value a while after it was confirmed: text in capitals. */
  rewrites: string[];
  /** The state in which orders arrive. */
  orderState: string;
  /** Locks and warnings are said in other words, pauses as a date, and faults as a page of HTML. */
  otherWords: boolean;
  /** Why nothing new is taken, whatever it is; empty where it is. */
  refuses: string;
};

export const noOddities: Oddities = {
  lagMs: 0,
  mostAtOnce: 0,
  tokensOnce: false,
  uploadsMs: 0,
  ignores: [],
  rewrites: [],
  orderState: 'paid',
  otherWords: false,
  refuses: '',
};

/** Of what the control page was sent, the oddities that there are. */
export function readOddities(given: Record<string, unknown>): Oddities {
  const words = (value: unknown): string[] =>
    Array.isArray(value) ? value.map(String) : typeof value === 'string' && value ? value.split(/[, ]+/) : [];
  return {
    lagMs: Number(given.lagMs) || 0,
    mostAtOnce: Number(given.mostAtOnce) || 0,
    tokensOnce: String(given.tokensOnce) === 'true',
    uploadsMs: Number(given.uploadsMs) || 0,
    ignores: words(given.ignores),
    rewrites: words(given.rewrites),
    orderState: typeof given.orderState === 'string' && given.orderState ? given.orderState : 'paid',
    otherWords: String(given.otherWords) === 'true',
    refuses: typeof given.refuses === 'string' ? given.refuses : '',
  };
}

/** A change without the fields that are silently left as they were. */
export const withoutIgnored = (part: Data, { ignores }: Oddities): Data =>
  Object.fromEntries(Object.entries(part).filter(([name]) => !ignores.includes(name)));

/** Fields as they are after their house rules went over them. */
export function rewritten(data: Data, { rewrites }: Oddities): Data {
  const text = (name: string) => rewrites.includes(name) && typeof data[name] === 'string';
  return Object.fromEntries(
    Object.entries(data).map(([name, value]) => [name, text(name) ? String(value).toUpperCase() : value]),
  );
}

type Version = { until: number; was: Listing | undefined };

/** What listings were a while ago, for reads that lag behind. */
export class Past {
  readonly #versions = new Map<string, Version[]>();

  /** Notes what a listing was before it is saved anew. */
  note(key: string, was: Listing | undefined, now: number, keepMs: number): void {
    const kept = (this.#versions.get(key) ?? []).filter((one) => one.until > now - keepMs);
    this.#versions.set(key, [...kept, { until: now, was }]);
  }

  /** The listing as it was at a time. */
  at(key: string, time: number, present: Listing): Listing | undefined {
    const version = (this.#versions.get(key) ?? []).find((one) => one.until > time);
    return version ? version.was : present;
  }
}

/** An order in the state in which this marketplace delivers them at the moment. */
export const inState = (order: Order, { orderState }: Oddities): Order => ({ ...order, state: orderState });
