import { randomBytes } from 'node:crypto';
import { noOddities, type Oddities, Past } from './oddities';
import type { Store } from './store';
import type { Listing, Market, Problem, Rules, Seller } from './types';

export type Fault = {
  kind: 'slow' | 'drop-before' | 'drop-after' | 'error-500' | 'busy-429' | 'token-slow' | 'cut-short';
  times: number;
  ms: number;
  method: string | null;
  /** Only requests whose address ends so, such as `/listings`; null for all. */
  path: string | null;
};
export type WebhookMood = { double: boolean; delayMs: number; reorder: boolean };

/** The stand-ins' shared state: documents, a clock that can be moved, faults asked for on the control page. */
export class World {
  readonly store: Store;
  readonly markets: Market[];
  readonly photoFolder: string;
  readonly faults = new Map<string, Fault[]>();
  readonly moods = new Map<string, WebhookMood>();
  readonly oddities = new Map<string, Oddities>();
  readonly #past = new Past();
  /** Access that was given before this time is not valid any more, by market. */
  readonly accessFrom = new Map<string, number>();
  /** Reasons for which the next reviews refuse. */
  readonly rejections = new Map<string, Problem[]>();

  constructor(store: Store, markets: Market[], photoFolder: string) {
    this.store = store;
    this.markets = markets;
    this.photoFolder = photoFolder;
  }

  now(): number {
    return Date.now() + (this.store.get<number>('clock', 'offset') ?? 0);
  }

  async advance(milliseconds: number): Promise<void> {
    await this.store.put('clock', 'offset', (this.store.get<number>('clock', 'offset') ?? 0) + milliseconds);
  }

  market(name: string): Market | undefined {
    return this.markets.find((market) => market.name === name);
  }

  rules(market: Market): Rules {
    return this.store.get<Rules>('rules', market.name) ?? market.firstRules;
  }

  listings(market: string, seller?: string): Listing[] {
    return this.store.all<Listing>(`listings/${market}`).filter((listing) => !seller || listing.seller === seller);
  }

  listing(market: string, id: string): Listing | undefined {
    return this.store.get<Listing>(`listings/${market}`, id);
  }

  /** A listing as reads show it: a while behind, where the marketplace lags. */
  asRead(listing: Listing): Listing | undefined {
    const { lagMs } = this.odd(listing.market);
    return lagMs ? this.#past.at(`${listing.market}/${listing.id}`, Date.now() - lagMs, listing) : listing;
  }

  saveListing(listing: Listing): Promise<Listing> {
    const { lagMs } = this.odd(listing.market);
    const before = this.listing(listing.market, listing.id);
    if (lagMs) this.#past.note(`${listing.market}/${listing.id}`, before, Date.now(), lagMs);
    return this.store.put(`listings/${listing.market}`, listing.id, { ...listing, updatedAt: this.now() });
  }

  seller(market: string, name: string): Seller | undefined {
    return this.store.get<Seller>(`sellers/${market}`, name);
  }

  async addSeller(
    market: string,
    name: string,
    password: string,
    exceptions: Seller['exceptions'] = {},
  ): Promise<Seller> {
    const seller: Seller = {
      id: name,
      market,
      name,
      password,
      apiKey: `${market.slice(0, 3)}_${randomBytes(18).toString('base64url')}`,
      exceptions,
      lockedUntil: 0,
      warned: false,
    };
    return this.store.put(`sellers/${market}`, name, seller);
  }

  async nextId(market: string, kind: string): Promise<string> {
    const last = this.store.get<number>('counters', `${market}/${kind}`) ?? 100_000 + market.length * 10_007;
    await this.store.put('counters', `${market}/${kind}`, last + 1);
    return String(last + 1);
  }

  odd(market: string): Oddities {
    return this.oddities.get(market) ?? noOddities;
  }

  mood(market: string): WebhookMood {
    return this.moods.get(market) ?? { double: false, delayMs: 0, reorder: false };
  }
}
