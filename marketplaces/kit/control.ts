import { type Context, Hono } from 'hono';
import type { Charge } from './charges';
import { passTime } from './clock';
import { controlFrame, controlPage } from './control-page';
import { readOddities } from './oddities';
import { makeOffer, type Offer, offersOn, takeCounter, withdrawAll } from './offers';
import { escapeHtml, page } from './page';
import type { RoutedMarket } from './routes';
import {
  applyHouseRules,
  buy,
  buyTogether,
  cancelOrder,
  changeBehindTheBack,
  passReviews,
  putOrderState,
  takeDown,
} from './selling';
import { bid } from './timed';
import type { Data, Json, Listing, Market, Order, Problem, Rules, Seller } from './types';
import type { Deliverer } from './webhooks';
import type { Fault, World } from './world';

const faultKinds: Fault['kind'][] = [
  'slow',
  'drop-before',
  'drop-after',
  'error-500',
  'busy-429',
  'token-slow',
  'cut-short',
];

/** Sets a value deep in the rules by a path such as `limits.title` or `categories.3.attributes.0.required`. */
function setPath(rules: Rules, path: string, value: Json): Rules {
  const copy = structuredClone(rules);
  const parts = path.split('.');
  const last = parts.pop() ?? '';
  let place: unknown = copy;
  for (const part of parts) place = (place as Record<string, unknown>)[part]; // a path that leads nowhere fails here, and is answered as 500
  const target = place as Record<string, Json>;
  if (value === null && Array.isArray(target)) target.splice(Number(last), 1);
  else target[last] = value;
  return { ...copy, version: rules.version + 1 };
}

/** Control page and interface: everything that a live marketplace would do by itself, on demand. */
export function controlRoutes(world: World, deliverer: Deliverer): Hono {
  const app = new Hono();

  const marketOf = (c: Context): Market | Response =>
    world.market(c.req.param('market') ?? '') ?? c.json({ error: 'no such marketplace' }, 404);
  const body = async (c: Context): Promise<Record<string, Json>> => {
    if (c.req.header('content-type')?.includes('json')) return (await c.req.json()) as Record<string, Json>; // own tests and page only
    return (await c.req.parseBody()) as Record<string, string>; // forms of the page below hold no files
  };
  const listingOf = (market: Market, given: Record<string, Json>): Listing | undefined =>
    world.listing(market.name, String(given.listing ?? '')) ??
    world
      .listings(market.name)
      .find((one) => one.state === 'live' && market.summary(one.data).reference === given.reference);
  const done = (c: Context, answer: Json) =>
    c.req.header('content-type')?.includes('json')
      ? c.json(answer)
      : c.html(
          page(
            controlFrame,
            'Done',
            `<h1>Done</h1><pre>${escapeHtml(JSON.stringify(answer, null, 2))}</pre><p><a href="/control">Back</a></p>`,
          ),
        );

  app.get('/', (c) => c.html(controlPage(world, c.req.query('market'), c.req.query('q') ?? '')));

  app.post('/api/clock', async (c) => {
    const given = await body(c);
    await world.advance((Number(given.days) || 0) * 86_400_000 + (Number(given.ms) || 0));
    const passed = await passTime(world, deliverer);
    await passReviews(world, deliverer);
    return done(c, { now: new Date(world.now()).toISOString(), ...passed });
  });

  app.get('/api/:market/listings', (c) => {
    const market = marketOf(c);
    if (market instanceof Response) return market;
    const all = world.listings(market.name).map((one) => ({ ...one, summary: market.summary(one.data) }));
    const wanted = c.req.query('reference');
    return c.json(wanted === undefined ? all : all.filter((one) => one.summary.reference === wanted));
  });

  app.get('/api/:market/offers', (c) => {
    const market = marketOf(c);
    return market instanceof Response ? market : c.json(offersOn(world, market.name));
  });

  app.get('/api/:market/charges', (c) => {
    const market = marketOf(c);
    return market instanceof Response ? market : c.json(world.store.all<Charge>(`charges/${market.name}`));
  });

  app.get('/api/:market/faults', (c) => {
    const market = marketOf(c);
    return market instanceof Response ? market : c.json(world.faults.get(market.name) ?? []);
  });

  app.get('/api/:market/rules', (c) => {
    const market = marketOf(c);
    return market instanceof Response ? market : c.json(world.rules(market));
  });

  app.get('/api/:market/orders', (c) => {
    const market = marketOf(c);
    return market instanceof Response ? market : c.json(world.store.all<Order>(`orders/${market.name}`));
  });

  app.post('/api/:market/:action', async (c) => {
    const market = marketOf(c);
    if (market instanceof Response) return market;
    const given = await body(c);
    const deed = (market as RoutedMarket).deeds?.[c.req.param('action')]; // those that have none are markets as well
    if (deed) {
      const answer = await deed(world, given);
      return typeof answer === 'string' ? c.json({ error: answer }, 409) : done(c, answer);
    }
    switch (c.req.param('action')) {
      case 'sellers': {
        const exceptions =
          typeof given.exceptions === 'object' && given.exceptions !== null && !Array.isArray(given.exceptions)
            ? given.exceptions
            : {};
        const name = String(given.name);
        const known = world.seller(market.name, name);
        const seller =
          known ?? (await world.addSeller(market.name, name, String(given.password ?? 'shop-password'), exceptions));
        return c.json({ name: seller.name, apiKey: seller.apiKey });
      }
      case 'fault': {
        const kind = faultKinds.find((one) => one === given.kind);
        if (!kind) return c.json({ error: 'no such fault' }, 422);
        const fault: Fault = {
          kind,
          times: Number(given.times) || 1,
          ms: Number(given.ms) || 1_000,
          method: typeof given.method === 'string' ? given.method : null,
          path: typeof given.path === 'string' && given.path ? given.path : null,
        };
        world.faults.set(market.name, [...(world.faults.get(market.name) ?? []).filter((one) => one.times > 0), fault]);
        return done(c, { faults: world.faults.get(market.name) ?? [] });
      }
      case 'expire':
        world.accessFrom.set(market.name, world.now());
        return done(c, { expired: market.name });
      case 'calm':
        world.faults.delete(market.name);
        world.moods.delete(market.name);
        world.oddities.delete(market.name);
        return done(c, { calm: true });
      case 'odd':
        world.oddities.set(market.name, readOddities(given));
        return done(c, { odd: world.odd(market.name) });
      case 'webhooks':
        world.moods.set(market.name, {
          double: String(given.double) === 'true',
          reorder: String(given.reorder) === 'true',
          delayMs: Number(given.delayMs) || 0,
        });
        return done(c, { webhooks: world.mood(market.name) });
      case 'reject':
        world.rejections.set(market.name, [
          ...(world.rejections.get(market.name) ?? []),
          ...Array<Problem>(Number(given.times) || 1).fill({
            pointer: String(given.pointer ?? ''),
            detail: String(given.reason || 'This does not belong here.'),
          }),
        ]);
        return done(c, { rejections: world.rejections.get(market.name) ?? [] });
      case 'past': {
        // Of a shop that has been there for long: what was bought, and since when things stand.
        const orders = (Array.isArray(given.orders) ? given.orders : []) as unknown as Order[]; // the demo only
        const since = (Array.isArray(given.listings) ? given.listings : []) as { id: string; createdAt: number }[]; // as above
        const days = world.rules(market).renewDays;
        const renewed = since.flatMap(({ id, createdAt }) => {
          const one = world.listing(market.name, id);
          if (!one) return [];
          const passed = days ? Math.floor((world.now() - createdAt) / (days * 86_400_000)) + 1 : 0;
          const renewsAt = days && one.renewsAt ? createdAt + passed * days * 86_400_000 : one.renewsAt;
          return [{ ...one, createdAt, renewsAt }];
        });
        await Promise.all([
          ...orders.map((one) => world.store.put(`orders/${market.name}`, one.id, one)),
          ...renewed.map((one) => world.store.put(`listings/${market.name}`, one.id, one)),
        ]);
        return c.json({ orders: orders.length, listings: renewed.map(({ id, renewsAt }) => ({ id, renewsAt })) });
      }
      case 'lock': {
        const seller = world.seller(market.name, String(given.seller));
        if (!seller) return c.json({ error: 'no such seller' }, 404);
        await world.store.put<Seller>(`sellers/${market.name}`, seller.name, {
          ...seller,
          lockedUntil: world.now() + (Number(given.minutes) || 0) * 60_000,
        });
        return done(c, { locked: seller.name });
      }
      case 'rule': {
        const raw = given.value ?? null;
        const value: Json =
          typeof raw === 'string' && /^(-?\d+|true|false|null)$/.test(raw) ? (JSON.parse(raw) as Json) : raw; // one of the four shapes just tested
        const rules = await world.store.put(
          'rules',
          market.name,
          setPath(world.rules(market), String(given.path), value),
        );
        for (const seller of world.store.all<Seller>(`sellers/${market.name}`))
          await deliverer.send(market.name, seller.name, 'rules-changed', { version: rules.version });
        return done(c, { version: rules.version });
      }
    }
    if (c.req.param('action') === 'cancel') {
      const order = world.store.get<Order>(`orders/${market.name}`, String(given.order));
      if (!order) return c.json({ error: 'no such order' }, 404);
      return done(c, { cancelled: (await cancelOrder(world, deliverer, order)).id });
    }
    if (c.req.param('action') === 'order-state') {
      const order = world.store.get<Order>(`orders/${market.name}`, String(given.order));
      if (!order) return c.json({ error: 'no such order' }, 404);
      return done(c, { state: (await putOrderState(world, deliverer, order, String(given.state))).state });
    }
    if (c.req.param('action') === 'take-counter') {
      const offer = world.store.get<Offer>(`offers/${market.name}`, String(given.offer));
      const taken = offer ? await takeCounter(world, deliverer, market, offer) : 'There is no such offer.';
      return typeof taken === 'string' ? c.json({ error: taken }, 409) : done(c, { order: taken.order });
    }
    if (c.req.param('action') === 'buy-together') {
      const wanted = (Array.isArray(given.lines) ? given.lines : []) as Record<string, Json>[]; // own tests only
      const lines = wanted.flatMap((one) => {
        const listing = listingOf(market, one);
        return listing ? [{ listing, quantity: Number(one.quantity) || 1, variant: String(one.variant ?? '') }] : [];
      });
      const order = await buyTogether(world, deliverer, market, lines, Number(given.discount) || 0);
      return typeof order === 'string' ? c.json({ error: order }, 409) : done(c, { order: order.id });
    }
    const listing = listingOf(market, given);
    if (!listing) return c.json({ error: 'no such listing' }, 404);
    switch (c.req.param('action')) {
      case 'buy': {
        const order = await buy(
          world,
          deliverer,
          market,
          listing,
          Number(given.quantity) || 1,
          'Marrowby',
          String(given.variant ?? ''),
          {
            collect: String(given.collect) === 'true',
            advertised: String(given.advertised) === 'true',
            personal: typeof given.personal === 'string' ? given.personal : undefined,
          },
        );
        return typeof order === 'string'
          ? c.json({ error: order }, 409)
          : done(c, { order: order.id, total: order.total });
      }
      case 'offer': {
        const offer = await makeOffer(world, deliverer, market, listing, {
          amount: Number(given.amount) || 0,
          buyer: String(given.buyer ?? 'A buyer in Marrowby'),
          words: String(given.words ?? ''),
          hours: Number(given.hours) || undefined,
        });
        return typeof offer === 'string'
          ? c.json({ error: offer }, 409)
          : done(c, { offers: listing.offers.length + 1, offer: offer.id, state: offer.state });
      }
      case 'bid': {
        const made = await bid(
          world,
          deliverer,
          market,
          listing,
          Number(given.amount) || 0,
          String(given.buyer ?? 'A bidder in Marrowby'),
        );
        return typeof made === 'string' ? c.json({ error: made }, 409) : done(c, made);
      }
      // Its time is over now, for this one alone.
      case 'run-out': {
        await world.saveListing({ ...listing, endsAt: world.now() });
        await passTime(world, deliverer);
        return done(c, { state: world.listing(market.name, listing.id)?.state ?? '' });
      }
      case 'rush': {
        // Many orders within a moment, each of one piece, as long as there are any.
        const many = Math.min(500, Number(given.times) || 100);
        let sold = 0;
        for (; sold < many; sold++) {
          const now = world.listing(market.name, listing.id);
          if (!now || typeof (await buy(world, deliverer, market, now, 1, 'Marrowby')) === 'string') break;
        }
        return done(c, { sold });
      }
      case 'quantity': {
        const quantity = Math.max(0, Math.floor(Number(given.quantity) || 0));
        await changeBehindTheBack(world, deliverer, listing, market.withQuantity(listing.data, quantity));
        return done(c, { quantity });
      }
      case 'withdraw':
        await withdrawAll(world, deliverer, listing);
        return done(c, { offers: 0 });
      case 'change': {
        const set: Data =
          typeof given.set === 'object' && given.set !== null && !Array.isArray(given.set)
            ? given.set
            : {
                [String(given.field)]:
                  typeof listing.data[String(given.field)] === 'number' ? Number(given.value) : (given.value ?? null),
              };
        await changeBehindTheBack(world, deliverer, listing, set);
        return done(c, { changed: listing.id });
      }
      case 'house-rules':
        await applyHouseRules(world, deliverer, listing);
        return done(c, { rewritten: listing.id });
      case 'pause':
      case 'resume': {
        const state = c.req.param('action') === 'pause' ? 'paused' : 'live';
        await world.saveListing({ ...listing, state });
        await deliverer.send(market.name, listing.seller, 'changed', { listing: listing.id });
        return done(c, { state });
      }
      case 'remove':
        await takeDown(world, deliverer, listing);
        return done(c, { removed: listing.id });
      default:
        return c.json({ error: 'no such action' }, 404);
    }
  });
  return app;
}
