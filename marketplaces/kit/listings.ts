import type { ContentfulStatusCode } from 'hono/utils/http-status';
import { charge } from './charges';
import { rulesOf } from './checks';
import { withoutIgnored } from './oddities';
import { endAfter, renewalAfter } from './selling';
import type { Data, Json, Listing, Look, Market, Problem, Seller } from './types';
import type { World } from './world';

const day = 86_400_000;

export type Refusal = {
  status: ContentfulStatusCode;
  title: string;
  problems: Problem[];
  headers: Record<string, string>;
};
export type Outcome = { listing: Listing; refusal?: undefined } | { listing?: undefined; refusal: Refusal };

const refused = (
  status: ContentfulStatusCode,
  title: string,
  problems: Problem[] = [],
  headers: Record<string, string> = {},
): Outcome => ({ refusal: { status, title, problems, headers } });

const isOn = (listing: Listing) => ['live', 'review', 'paused', 'off'].includes(listing.state);

/** Making, changing and ending listings by the marketplace's rules; how a request for it arrives is not its business. */
export class Listings {
  readonly #world: World;
  readonly #market: Market;

  constructor(world: World, market: Market) {
    this.#world = world;
    this.#market = market;
  }

  /** What a check may look up besides the listing itself. */
  #look(seller: Seller, own: string | null): Look {
    const { name } = this.#market;
    return {
      now: this.#world.now(),
      photo: (id) => this.#photo(id, own),
      clip: (id) => this.#world.store.get<{ seconds: number }>('clips', `${name}/${id}`),
      taken: (reference) => this.#world.store.get<string>('references', `${name}/${seller.name}/${reference}`) ?? null,
      own,
    };
  }

  /** An upload, unless it was forgotten; what the listing shows already stays with it. */
  #photo(id: string, own: string | null) {
    const { name } = this.#market;
    const upload = this.#world.store.get<{ width: number; height: number; at?: number }>('photos', `${name}/${id}`);
    const { uploadsMs } = this.#world.odd(name);
    const listing = own === null ? undefined : this.#world.listing(name, own);
    const isShown = listing ? this.#market.summary(listing.data).photos.includes(id) : false;
    const isOver = uploadsMs > 0 && (upload?.at ?? 0) < Date.now() - uploadsMs;
    return isOver && !isShown ? undefined : upload;
  }

  problems(seller: Seller, data: Data, own: string | null = null): Problem[] {
    const rules = rulesOf(this.#world.rules(this.#market), seller);
    return this.#market.validate(data, rules, seller, this.#look(seller, own));
  }

  /** Over the daily number: a warning at first, then the account is locked for an hour. */
  async #overDaily(seller: Seller): Promise<Outcome | null> {
    const own = seller.exceptions.newPerDay;
    const limit = typeof own === 'number' ? own : this.#world.rules(this.#market).pacing.newPerDay;
    const key = `${this.#market.name}/${seller.name}/${Math.floor(this.#world.now() / day)}`;
    const count = (this.#world.store.get<number>('daily', key) ?? 0) + 1;
    if (count <= limit) {
      await this.#world.store.put('daily', key, count);
      return null;
    }
    const lock = seller.warned ? this.#world.now() + 3_600_000 : 0;
    await this.#world.store.put<Seller>(`sellers/${this.#market.name}`, seller.name, {
      ...seller,
      warned: true,
      lockedUntil: lock,
    });
    const sentence = lock
      ? 'This account is locked for a while'
      : `Only ${limit} new listings a day: stop now or the account is locked`;
    if (this.#world.odd(this.#market.name).otherWords)
      return refused(lock ? 403 : 429, lock ? 'Selling is suspended' : 'Your allowance for today is used up', [], {
        'retry-after': new Date(Date.now() + 3_600_000).toUTCString(),
      });
    return refused(lock ? 403 : 429, sentence, [], { 'retry-after': '3600' });
  }

  async create(seller: Seller, given: Data): Promise<Outcome> {
    const data: Data = Object.fromEntries(Object.entries(given).filter(([, value]) => value !== null));
    const world = this.#world;
    const market = this.#market;
    const { refuses } = world.odd(market.name);
    if (refuses) return refused(422, refuses);
    const problems = this.problems(seller, data);
    if (problems.length) return refused(422, 'The listing cannot be accepted', problems);
    const over = await this.#overDaily(seller);
    if (over) return over;
    const now = world.now();
    const { review } = world.rules(market);
    const id = await world.nextId(market.name, 'listing');
    const listing: Listing = {
      id,
      market: market.name,
      seller: seller.name,
      state: review ? 'review' : 'live',
      data,
      createdAt: now,
      updatedAt: now,
      endedAt: null,
      renewsAt: renewalAfter(world, market),
      endsAt: endAfter(world, market, data),
      reviewAt: review ? now + review.ms : null,
      reasons: [],
      offers: [],
    };
    await world.saveListing(listing);
    await charge(world, market, listing, 'listing');
    await this.#noteReference(listing);
    return { listing };
  }

  /** A seller's number is written down for good, with the listing that it was given to. */
  async #noteReference({ id, seller, data }: Listing): Promise<void> {
    const { reference } = this.#market.summary(data);
    if (reference) await this.#world.store.put<Json>('references', `${this.#market.name}/${seller}/${reference}`, id);
  }

  owned(seller: Seller, id: string): Outcome {
    const listing = this.#world.listing(this.#market.name, id);
    return listing && listing.seller === seller.name ? { listing } : refused(404, 'There is no such listing');
  }

  async change(seller: Seller, id: string, part: Data): Promise<Outcome> {
    const found = this.owned(seller, id);
    if (!found.listing) return found;
    if (!isOn(found.listing)) return refused(409, 'This listing is not live any more');
    const taken = withoutIgnored(part, this.#world.odd(this.#market.name));
    const merged: Data = this.#market.merge?.(found.listing.data, taken) ?? { ...found.listing.data, ...taken };
    for (const [name, value] of Object.entries(merged)) if (value === null) delete merged[name];
    const fixed = this.#market.whyNotChange?.(found.listing, merged) ?? null;
    if (fixed) return refused(409, fixed.detail, [fixed]);
    const problems = this.problems(seller, merged, id);
    if (problems.length) return refused(422, 'The change cannot be accepted', problems);
    const changed = await this.#world.saveListing({ ...found.listing, data: merged });
    await this.#noteReference(changed);
    return { listing: changed };
  }

  /** Out of sight of buyers, and kept with its number and everything that it says. */
  async switchOff(seller: Seller, id: string): Promise<Outcome> {
    const found = this.owned(seller, id);
    if (!found.listing || found.listing.state === 'off') return found;
    if (!isOn(found.listing)) return refused(409, 'This listing was deleted');
    return {
      listing: await this.#world.saveListing({ ...found.listing, state: 'off', endedAt: this.#world.now() }),
    };
  }

  /** In sight again, with what has changed meanwhile; without another review. */
  async switchOn(seller: Seller, id: string, part: Data): Promise<Outcome> {
    const found = this.owned(seller, id);
    if (!found.listing) return found;
    if (found.listing.state !== 'off' && found.listing.state !== 'live')
      return refused(409, 'Only what was switched off can be switched on');
    const changed = await this.change(seller, id, part);
    if (!changed.listing) return changed;
    return { listing: await this.#world.saveListing({ ...changed.listing, state: 'live', endedAt: null }) };
  }

  async end(seller: Seller, id: string): Promise<Outcome> {
    const found = this.owned(seller, id);
    if (!found.listing) return found;
    if (!isOn(found.listing)) return found;
    const why = this.#market.whyNotEnd(found.listing);
    if (why) return refused(409, why);
    return {
      listing: await this.#world.saveListing({ ...found.listing, state: 'ended', endedAt: this.#world.now() }),
    };
  }
}
