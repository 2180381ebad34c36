import { createHash, randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type Context, Hono } from 'hono';
import { whoAsks } from './access';
import { refuse } from './answers';
import { chargesOf } from './charges';
import { faultGate, overRate } from './gate';
import { jpegMeasures } from './jpeg';
import { Listings, type Outcome } from './listings';
import { mp4Seconds } from './mp4';
import { answerOffer, isOpen, type Offer, offersOn, type Reply } from './offers';
import { pngMeasures } from './png';
import type { RoutedMarket } from './routes';
import { cancelOrder } from './selling';
import { highestBid } from './timed';
import type { Data, Json, Listing, Market, Order, SellerEnv } from './types';
import { type Deliverer, type Hook, newHookSecret } from './webhooks';
import type { World } from './world';

const day = 86_400_000;
type Kept = { at: number; bodyHash: string; status: number; body: string };

const isData = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A listing as its owner sees it over the interface. */
const shown = (listing: Listing, market: Market, origin: string): Data => ({
  ...listing.data,
  id: listing.id,
  state: listing.state,
  link: `${origin}/${market.name}/listing/${listing.id}`,
  called: market.summary(listing.data).title,
  photoLinks: market
    .summary(listing.data)
    .photos.map((id) => ({ id, link: `${origin}/${market.name}/photo/${id}.jpg` })),
  createdAt: new Date(listing.createdAt).toISOString(),
  updatedAt: new Date(listing.updatedAt).toISOString(),
  renewsAt: listing.renewsAt === null ? null : new Date(listing.renewsAt).toISOString(),
  endsAt: listing.endsAt ? new Date(listing.endsAt).toISOString() : null,
  reasons: (listing.reasons ?? []).map(({ pointer, detail }) => ({ detail, ...(pointer ? { pointer } : {}) })),
  offersOpen: listing.offers.length,
  ...(listing.bids ? { bids: listing.bids.length, highestBid: highestBid(listing)?.amount ?? null } : {}),
});

async function readBody(c: Context): Promise<Data | null> {
  try {
    const body: unknown = await c.req.json();
    return isData(body) ? body : null;
  } catch {
    return null;
  }
}

/** The seller's HTTP interface of one marketplace. */
export function apiRoutes(world: World, market: RoutedMarket, deliverer: Deliverer): Hono<SellerEnv> {
  const app = new Hono<SellerEnv>();
  const { listings: listingsPath, photos: photosPath } = market.paths;
  const origin = (c: Context) => new URL(c.req.url).origin;

  app.use('*', faultGate(world, market));
  app.use('*', async (c, next) => {
    const seller = whoAsks(c, world, market);
    if (seller instanceof Response) return seller;
    const retryAfter = overRate(world, market, seller);
    if (retryAfter > 0) return refuse(c, market, 429, 'Too many requests', [], { 'retry-after': String(retryAfter) });
    if (seller.lockedUntil > world.now() && c.req.method !== 'GET') {
      const seconds = Math.ceil((seller.lockedUntil - world.now()) / 1000);
      return world.odd(market.name).otherWords
        ? refuse(c, market, 403, 'Selling is suspended', [], {
            'retry-after': new Date(Date.now() + seconds * 1000).toUTCString(),
          })
        : refuse(c, market, 403, 'This account is locked for a while', [], { 'retry-after': String(seconds) });
    }
    c.set('seller', seller);
    return next();
  });

  app.get('/rules', (c) => c.json(world.rules(market)));
  app.get('/me', (c) => {
    const { name, exceptions, lockedUntil, warned } = c.get('seller');
    return c.json({ name, exceptions, lockedUntil: lockedUntil > world.now() ? lockedUntil : null, warned });
  });

  /** Runs a change at most once per Idempotency-Key within 24 hours, where this marketplace honours it. */
  const once = async (c: Context<SellerEnv>, body: Data, work: () => Promise<Response>): Promise<Response> => {
    const given = c.req.header('idempotency-key');
    if (!market.honoursIdempotencyKey || !given) return work();
    const key = `${market.name}/${c.get('seller').name}/${given}`;
    const bodyHash = createHash('sha256')
      .update(`${c.req.method} ${c.req.path} ${JSON.stringify(body)}`)
      .digest('hex');
    const kept = world.store.get<Kept>('idempotency', key);
    if (kept && world.now() - kept.at < day) {
      if (kept.bodyHash !== bodyHash) return refuse(c, market, 422, 'This key was used for another request');
      return new Response(kept.body, {
        status: kept.status,
        headers: { 'content-type': 'application/json', 'idempotent-replay': 'true' },
      });
    }
    const answer = await work();
    if (answer.status < 500 && answer.status !== 429) {
      await world.store.put<Kept>('idempotency', key, {
        at: world.now(),
        bodyHash,
        status: answer.status,
        body: await answer.clone().text(),
      });
    }
    return answer;
  };

  const listings = new Listings(world, market);
  const answer = (c: Context<SellerEnv>, outcome: Outcome, status: 200 | 201 = 200): Response =>
    outcome.listing
      ? c.json(shown(outcome.listing, market, origin(c)), status)
      : refuse(
          c,
          market,
          outcome.refusal.status,
          outcome.refusal.title,
          outcome.refusal.problems,
          outcome.refusal.headers,
        );
  const isDirect = market.writes !== 'elsewhere';

  if (isDirect)
    app.post(`/${listingsPath}`, async (c) => {
      const body = await readBody(c);
      if (!body) return refuse(c, market, 400, 'The body is not a JSON object');
      return once(c, body, async () => answer(c, await listings.create(c.get('seller'), body), 201));
    });

  app.get(`/${listingsPath}`, (c) => {
    const { reference, state, after = '', limit = '50' } = c.req.query();
    const size = Math.min(world.odd(market.name).mostAtOnce || 200, Math.max(1, Number(limit) || 50));
    const all = world
      .listings(market.name, c.get('seller').name)
      .flatMap((listing) => world.asRead(listing) ?? [])
      .filter((listing) => !reference || market.summary(listing.data).reference === reference)
      .filter((listing) => !state || listing.state === state)
      .filter((listing) => listing.id > after)
      .sort((a, b) => (a.id < b.id ? -1 : 1));
    const some = all.slice(0, size);
    return c.json({
      listings: some.map((one) => shown(one, market, origin(c))),
      next: all.length > size ? (some.at(-1)?.id ?? null) : null,
    });
  });

  app.get(`/${listingsPath}/:id`, (c) => {
    const found = listings.owned(c.get('seller'), c.req.param('id'));
    const read = found.listing && world.asRead(found.listing);
    if (found.listing && !read) return refuse(c, market, 404, 'There is no such listing');
    return answer(c, read ? { listing: read } : found);
  });

  if (isDirect) {
    app.patch(`/${listingsPath}/:id`, async (c) => {
      const body = await readBody(c);
      if (!body) return refuse(c, market, 400, 'The body is not a JSON object');
      return once(c, body, async () => answer(c, await listings.change(c.get('seller'), c.req.param('id'), body)));
    });
    app.post(`/${listingsPath}/:id/end`, async (c) =>
      answer(c, await listings.end(c.get('seller'), c.req.param('id'))),
    );
  }

  if (market.switchesOff) {
    app.post(`/${listingsPath}/:id/off`, async (c) =>
      answer(c, await listings.switchOff(c.get('seller'), c.req.param('id'))),
    );
    app.post(`/${listingsPath}/:id/on`, async (c) => {
      const body = await readBody(c);
      if (!body) return refuse(c, market, 400, 'The body is not a JSON object');
      return once(c, body, async () => answer(c, await listings.switchOn(c.get('seller'), c.req.param('id'), body)));
    });
  }

  if (market.clips)
    app.post(`/${market.clips}`, async (c) => {
      const bytes = Buffer.from(await c.req.arrayBuffer());
      if (bytes.length > 60_000_000) return refuse(c, market, 422, 'A clip must be an MP4 of at most 60 MB');
      const seconds = mp4Seconds(bytes);
      if (seconds === null) return refuse(c, market, 422, 'This is no MP4 that can be read');
      const id = createHash('sha256').update(bytes).digest('hex').slice(0, 24);
      await writeFile(join(world.photoFolder, `${market.name}-${id}.mp4`), bytes);
      await world.store.put<Json>('clips', `${market.name}/${id}`, { seller: c.get('seller').name, seconds });
      return c.json({ id, seconds }, 201);
    });

  app.post(`/${photosPath}`, async (c) => {
    const bytes = Buffer.from(await c.req.arrayBuffer());
    const most = market.takesPng ? 60 : 20;
    const kinds = market.takesPng ? 'JPEG or PNG' : 'JPEG';
    if (bytes.length < 100 || bytes.length > most * 1_000_000)
      return refuse(c, market, 422, `A photo must be a ${kinds} of at most ${most} MB`);
    const png = market.takesPng ? pngMeasures(bytes) : null;
    if (!png && (bytes[0] !== 0xff || bytes[1] !== 0xd8)) return refuse(c, market, 422, `A photo must be a ${kinds}`);
    const id = createHash('sha256').update(bytes).digest('hex').slice(0, 24);
    const measures = png ?? jpegMeasures(bytes);
    if (!measures) return refuse(c, market, 422, 'This JPEG cannot be read');
    await writeFile(join(world.photoFolder, `${market.name}-${id}.jpg`), bytes);
    await world.store.put<Json>('photos', `${market.name}/${id}`, {
      seller: c.get('seller').name,
      at: Date.now(),
      ...measures,
    });
    return c.json({ id }, 201);
  });

  app.get('/charges', (c) => c.json({ charges: chargesOf(world, market.name, c.get('seller').name) }));

  const ownOffer = (c: Context<SellerEnv>, id: string) => {
    const offer = world.store.get<Offer>(`offers/${market.name}`, id);
    return offer && offer.seller === c.get('seller').name ? offer : undefined;
  };
  const told = ({ market: _market, seller: _seller, ...offer }: Offer) => ({
    ...offer,
    createdAt: new Date(offer.createdAt).toISOString(),
    deadline: new Date(offer.deadline).toISOString(),
  });
  if (market.offersOf) {
    app.get('/offers', (c) => {
      const { state } = c.req.query();
      const own = offersOn(world, market.name).filter((one) => one.seller === c.get('seller').name);
      return c.json({
        offers: own
          .filter((one) => state !== 'open' || isOpen(one))
          .slice(-200)
          .map(told),
      });
    });
    app.get('/offers/:id', (c) => {
      const offer = ownOffer(c, c.req.param('id'));
      return offer ? c.json(told(offer)) : refuse(c, market, 404, 'There is no such offer');
    });
    app.post('/offers/:id/answer', async (c) => {
      const offer = ownOffer(c, c.req.param('id'));
      if (!offer) return refuse(c, market, 404, 'There is no such offer');
      const body = await readBody(c);
      const reply: Reply | null =
        body?.answer === 'accept' || body?.answer === 'decline'
          ? { answer: body.answer }
          : body?.answer === 'counter' && typeof body.amount === 'number'
            ? { answer: 'counter', amount: body.amount }
            : null;
      if (!reply) return refuse(c, market, 422, 'An offer is accepted, declined or countered');
      const done = await answerOffer(world, deliverer, market, offer, reply);
      return typeof done === 'string' ? refuse(c, market, 409, done) : c.json(told(done));
    });
  }

  app.get('/orders', (c) => {
    const since = Date.parse(c.req.query('since') ?? '') || 0;
    const orders = world.store
      .all<Order>(`orders/${market.name}`)
      .filter((order) => order.seller === c.get('seller').name && (order.updatedAt ?? order.createdAt) >= since)
      .sort((a, b) => (a.updatedAt ?? a.createdAt) - (b.updatedAt ?? b.createdAt) || (a.id < b.id ? -1 : 1));
    // Of many at the same moment the time does not say where one has come to; the last order's number does.
    const before = orders.findIndex((order) => order.id === c.req.query('after'));
    const size = world.odd(market.name).mostAtOnce || 200;
    const page = orders.slice(before + 1, before + 1 + size);
    const next = orders.length > before + 1 + size ? (page.at(-1)?.id ?? null) : null;
    return c.json({ orders: page, serverTime: new Date(world.now()).toISOString(), next });
  });
  app.get('/orders/:id', (c) => {
    const order = world.store.get<Order>(`orders/${market.name}`, c.req.param('id'));
    return order && order.seller === c.get('seller').name
      ? c.json(order)
      : refuse(c, market, 404, 'There is no such order');
  });

  app.post('/orders/:id/cancel', async (c) => {
    const order = world.store.get<Order>(`orders/${market.name}`, c.req.param('id'));
    if (!order || order.seller !== c.get('seller').name) return refuse(c, market, 404, 'There is no such order');
    return c.json(await cancelOrder(world, deliverer, order));
  });

  if (market.hasWebhooks) {
    app.post('/webhooks', async (c) => {
      const body = await readBody(c);
      const url = typeof body?.url === 'string' ? body.url : '';
      if (!/^http:\/\/(127\.0\.0\.1|localhost)[:/]/.test(url))
        return refuse(c, market, 422, 'The address must be on this machine');
      const hook: Hook = {
        id: randomUUID(),
        market: market.name,
        seller: c.get('seller').name,
        url,
        secret: newHookSecret(),
      };
      const old = world.store
        .all<Hook>('hooks')
        .filter((one) => one.market === hook.market && one.seller === hook.seller && one.url === url);
      await Promise.all(old.map((one) => world.store.remove('hooks', one.id)));
      await world.store.put('hooks', hook.id, hook);
      return c.json({ id: hook.id, secret: hook.secret }, 201);
    });
  }
  market.routes?.(app, { world, market, listings, shown: (listing, from) => shown(listing, market, from), once });
  return app;
}
