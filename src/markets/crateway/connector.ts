import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { catalogueAt } from '../catalogue';
import type { Connector, RemoteListing } from '../connector';
import { lineError, lineSchema } from '../feeds';
import { restConnector, withOurField } from '../rest';
import type { Session } from '../session';
import { cratewayRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

const manner = {
  market: 'crateway',
  name: 'Crateway',
  about: 'Catalogue of products with a warehouse service',
  access: 'key',
  honoursIdempotencyKey: true,
  hasWebhooks: true,
  paths: { listings: 'offers', photos: 'pictures' },
  rules: cratewayRules,
  exceptions: () => ({}),
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire: Record<string, unknown>) => String(wire.number ?? ''),
} as const;
const base = restConnector(manner);

const feedSchema = z.object({
  feed: z.string(),
  state: z.enum(['waiting', 'done']),
  rows: z.array(lineSchema.extend({ listing: z.string().nullable() })).optional(),
});

const waits = [150, 300, 600, 1_000, 2_000, 4_000, 8_000, 15_000];
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Sends one line as a feed and waits for its answer. A feed that takes longer counts as not answered: the same key
 * finds the same feed at the next try.
 */
async function feed(session: Session, line: Record<string, unknown>, key: string): Promise<string> {
  const sent = feedSchema.parse(
    await session.send({ method: 'POST', path: '/feeds', body: { lines: [line] }, idempotencyKey: key }),
  );
  for (const wait of waits) {
    await pause(wait);
    const now = feedSchema.parse(await session.send({ method: 'GET', path: `/feeds/${sent.feed}` }));
    const row = now.rows?.[0];
    if (now.state !== 'done' || !row) continue;
    if (row.ok && row.listing) return row.listing;
    throw withOurField(lineError(row, manner.name), manner);
  }
  throw new NettingError('market-unreachable', 'Crateway has not answered the feed yet', { retryAfterMs: 30_000 });
}

/** Crateway: offers on catalogue products; changes travel as feeds and are answered row by row. */
export const crateway: Connector = {
  ...base,
  create: async (session, { content, idempotencyKey }): Promise<RemoteListing> =>
    base.read(session, await feed(session, { kind: 'new', offer: toWire(content) }, idempotencyKey)),
  async change(session, remoteId, { content, idempotencyKey }, fields) {
    const whole = toWire(content);
    const offer = Object.fromEntries(wireFields(fields).map((field) => [field, whole[field] ?? null]));
    return base.read(session, await feed(session, { kind: 'change', listing: remoteId, offer }, idempotencyKey));
  },
  end: async (session, remoteId, idempotencyKey) =>
    base.read(session, await feed(session, { kind: 'end', listing: remoteId }, idempotencyKey)),
  findProducts: catalogueAt('/catalogue'),
};
