import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { isTransient, NettingError } from '../../core/errors';
import { collectors } from '../batch';
import { catalogueAt } from '../catalogue';
import type { Connector, RemoteListing } from '../connector';
import { lineError, lineSchema } from '../feeds';
import { restConnector, withOurField } from '../rest';
import type { Session } from '../session';
import { crateInbound } from './inbound';
import { cratewayRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

const manner = {
  market: 'crateway',
  name: 'Crateway',
  about: 'Catalogue of products with a warehouse service',
  access: 'key',
  // It does, for a whole feed; which lines went together is not kept, so a repeat after a crash looks first.
  honoursIdempotencyKey: false,
  hasWebhooks: true,
  linesAtOnce: 500,
  paths: { listings: 'offers', photos: 'pictures' },
  rules: cratewayRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire: Record<string, unknown>) => String(wire.number ?? ''),
} as const;
const base = restConnector(manner);

const rowSchema = lineSchema.extend({ listing: z.string().nullable() });
const feedSchema = z.object({
  feed: z.string(),
  state: z.enum(['waiting', 'done']),
  rows: z.array(rowSchema).optional(),
});

const offersSchema = z.object({
  offers: z.array(
    z.object({
      cents: z.number().int().min(0),
      quantity: z.number().int().min(0),
      condition: z.string().max(60),
      ships: z.string().max(60),
      delivery: z.number().int().min(0),
    }),
  ),
});

type Line = { kind: 'new' | 'change' | 'end'; listing?: string; offer?: Record<string, unknown> };
type Row = z.infer<typeof rowSchema>;

const firstWaitMs = 150;
const longestWaitMs = 10_000;
const patienceMs = 15 * 60_000;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Takes a feed to them. When the answer got lost the same key finds the same feed. */
async function post(session: Session, lines: Line[], key: string): Promise<string> {
  for (let tries = 1; ; tries++) {
    try {
      const body = { lines };
      return feedSchema.parse(await session.send({ method: 'POST', path: '/feeds', body, idempotencyKey: key })).feed;
    } catch (error) {
      const again = error instanceof NettingError && error.code === 'market-unreachable' && tries < 4;
      if (!again) throw error;
      await pause(300 * 2 ** tries);
    }
  }
}

/** The rows of a feed, once it is worked off. */
async function answered(session: Session, feed: string): Promise<Row[]> {
  const until = Date.now() + patienceMs;
  for (let wait = firstWaitMs; Date.now() < until; wait = Math.min(longestWaitMs, wait * 2)) {
    await pause(wait);
    const now = await session
      .send({ method: 'GET', path: `/feeds/${encodeURIComponent(feed)}` })
      .then((answer) => feedSchema.parse(answer))
      .catch((error: unknown) => {
        if (error instanceof NettingError && isTransient(error.code)) return null;
        throw error;
      });
    if (now?.state === 'done') return now.rows ?? [];
  }
  throw new NettingError('market-unreachable', 'Crateway has not answered the feed yet', { retryAfterMs: 60_000 });
}

const collectorOf = collectors<Line, Row>((holder) => ({
  most: manner.linesAtOnce,
  goes: 3,
  async send(lines) {
    const session = holder.current;
    return answered(session, await post(session, lines, randomUUID()));
  },
}));

/** Sends one line, together with others that are due, and waits for its row. */
async function feed(session: Session, line: Line): Promise<string> {
  const row = await collectorOf(session).add(line, session.urgent);
  if (row.ok && row.listing) return row.listing;
  throw withOurField(lineError(row, manner.name), manner);
}

/** Feeds that they have taken and not worked off: until they are done nobody knows what is there. */
async function settled(session: Session): Promise<void> {
  const open = z
    .object({ feeds: z.array(z.object({ feed: z.string() })) })
    .parse(await session.send({ method: 'GET', path: '/feeds?state=waiting' }));
  for (const one of open.feeds) await answered(session, one.feed);
}

/** Crateway: offers on catalogue products; changes travel as feeds and are answered row by row. */
export const crateway: Connector = {
  ...base,
  create: async (session, { content }): Promise<RemoteListing> =>
    base.read(session, await feed(session, { kind: 'new', offer: toWire(content) })),
  async change(session, remoteId, { content }, fields) {
    const whole = toWire(content);
    const offer = Object.fromEntries(wireFields(fields).map((field) => [field, whole[field] ?? null]));
    return base.read(session, await feed(session, { kind: 'change', listing: remoteId, offer }));
  },
  end: async (session, remoteId) => base.read(session, await feed(session, { kind: 'end', listing: remoteId })),
  async findLive(session, sku) {
    await settled(session);
    return base.findLive(session, sku);
  },
  inbound: crateInbound,
  findProducts: catalogueAt('/catalogue'),
  async presentOffers(session, productId) {
    const path = `/catalogue/${encodeURIComponent(productId)}/offers`;
    const { offers } = offersSchema.parse(await session.send({ method: 'GET', path }));
    return offers.map(({ cents, ...one }) => ({ ...one, price: cents }));
  },
};
