import { randomUUID } from 'node:crypto';
import type { Hono } from 'hono';
import { dataOf, textOf } from '../kit/checks';
import type { Tools } from '../kit/routes';
import type { Data, Json, SellerEnv } from '../kit/types';

type Row = {
  row: number;
  number: string;
  ok: boolean;
  listing: string | null;
  problems: { pointer: string; detail: string }[];
  sentence: string | null;
};
type Feed = { id: string; seller: string; lines: Data[]; readyAt: number; rows: Row[] | null };

/** Changes come as feeds, are worked off a while later, and are answered row by row. */
export function feedRoutes(app: Hono<SellerEnv>, { world, market, listings, once }: Tools): void {
  const place = `feeds/${market.name}`;

  async function work(feed: Feed): Promise<Feed> {
    if (feed.rows || feed.readyAt > world.now()) return feed;
    // Marked before anything is awaited, so that two who ask at once do not work it off twice.
    const rows: Row[] = [];
    feed.rows = rows;
    const seller = world.seller(market.name, feed.seller);
    if (!seller) return feed;
    for (const [index, line] of feed.lines.entries()) {
      const kind = textOf(line.kind);
      const body = dataOf(line.offer);
      const id = textOf(line.listing);
      const outcome =
        kind === 'new'
          ? await listings.create(seller, body)
          : kind === 'change'
            ? await listings.change(seller, id, body)
            : kind === 'end'
              ? await listings.end(seller, id)
              : null;
      rows.push({
        row: index + 1,
        number: textOf(line.number) || textOf(body.number),
        ok: Boolean(outcome?.listing),
        listing: outcome?.listing?.id ?? null,
        problems: outcome?.refusal?.problems ?? [],
        sentence: outcome ? (outcome.refusal?.title ?? null) : 'This kind of line is not known.',
      });
    }
    await world.store.put<Feed>(place, feed.id, feed);
    return feed;
  }

  app.post('/feeds', async (c) => {
    const body = dataOf((await c.req.json().catch(() => null)) as Json);
    const lines = Array.isArray(body.lines) ? body.lines.map(dataOf) : [];
    if (lines.length < 1 || lines.length > 10_000) return c.json({ title: 'A feed holds 1 to 10,000 lines' }, 422);
    return once(c, body, async () => {
      const ms = world.rules(market).limits.feedMs ?? 0;
      const feed: Feed = {
        id: randomUUID(),
        seller: c.get('seller').name,
        lines,
        readyAt: world.now() + ms,
        rows: null,
      };
      await world.store.put<Feed>(place, feed.id, feed);
      return c.json({ feed: feed.id, state: 'waiting' }, 202);
    });
  });
  app.get('/feeds', async (c) => {
    const own = world.store.all<Feed>(place).filter((feed) => feed.seller === c.get('seller').name);
    const stateOf = (feed: Feed) => (feed.rows && feed.rows.length === feed.lines.length ? 'done' : 'waiting');
    const wanted = c.req.query('state');
    return c.json({
      feeds: own
        .map((feed) => ({ feed: feed.id, state: stateOf(feed) }))
        .filter((feed) => !wanted || feed.state === wanted)
        .slice(-200),
    });
  });
  app.get('/feeds/:id', async (c) => {
    const feed = world.store.get<Feed>(place, c.req.param('id'));
    if (!feed || feed.seller !== c.get('seller').name) return c.json({ title: 'There is no such feed' }, 404);
    const now = await work(feed);
    const done = now.rows !== null && now.rows.length === now.lines.length;
    return c.json({ feed: now.id, state: done ? 'done' : 'waiting', rows: done ? now.rows : [] });
  });
}
