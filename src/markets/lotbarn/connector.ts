import { z } from 'zod';
import { catalogueAt } from '../catalogue';
import type { Connector, RemoteListing } from '../connector';
import { lineError, lineSchema } from '../feeds';
import { listingReader, restConnector, withOurField } from '../rest';
import type { Session } from '../session';
import { lotbarnRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

const manner = {
  market: 'lotbarn',
  name: 'Lotbarn',
  about: 'Parts and collectables, lots of catalogue entries',
  access: 'key',
  honoursIdempotencyKey: false,
  hasWebhooks: false,
  paths: { listings: 'lots', photos: 'lot-photos' },
  rules: lotbarnRules,
  exceptions: () => ({}),
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire: Record<string, unknown>) => String(wire.reference ?? ''),
} as const;
const base = restConnector(manner);
const read = listingReader(manner);

/** One line of a batch and its answer. */
async function line(session: Session, content: Record<string, unknown>): Promise<RemoteListing> {
  const answer = await session.send({ method: 'POST', path: '/batches', lines: [content] });
  const [row] = z
    .array(lineSchema.extend({ lot: z.unknown().optional() }))
    .min(1)
    .parse(answer);
  if (row?.ok) return read(row.lot);
  throw withOurField(lineError(row ?? { ok: false }, manner.name), manner);
}

const salesSchema = z.object({
  sales: z.array(
    z.object({
      date: z.iso.date(),
      cents: z.number().int(),
      quantity: z.number().int(),
      condition: z.string(),
      daysOnSale: z.number(),
    }),
  ),
});
const offersSchema = z.object({
  offers: z.array(z.object({ cents: z.number().int(), quantity: z.number().int(), condition: z.string() })),
});

/** Lotbarn: changes travel as lines of JSON; it tells single past sales, and nothing by itself. */
export const lotbarn: Connector = {
  ...base,
  create: (session, { content, photoIds }) => line(session, { op: 'add', ...toWire(content, photoIds) }),
  async change(session, remoteId, { content, photoIds }, fields) {
    const whole = toWire(content, photoIds);
    const part = Object.fromEntries(wireFields(fields).map((field) => [field, whole[field] ?? null]));
    return line(session, { op: 'change', lot: remoteId, ...part });
  },
  end: (session, remoteId) => line(session, { op: 'remove', lot: remoteId }),
  findProducts: catalogueAt('/entries'),
  async pastSales(session, productId) {
    const path = `/entries/${encodeURIComponent(productId)}/sales`;
    const { sales } = salesSchema.parse(await session.send({ method: 'GET', path }));
    return sales.map(({ cents, ...one }) => ({ ...one, price: cents, source: manner.name }));
  },
  async presentOffers(session, productId) {
    const path = `/entries/${encodeURIComponent(productId)}/offers`;
    const { offers } = offersSchema.parse(await session.send({ method: 'GET', path }));
    return offers.map(({ cents, ...one }) => ({ ...one, price: cents }));
  },
};
