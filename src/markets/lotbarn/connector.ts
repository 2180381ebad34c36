import { z } from 'zod';
import { NettingError } from '../../core/errors';
import type { Content } from '../../core/listing';
import { collectors, type LineSending } from '../batch';
import { catalogueAt } from '../catalogue';
import type { CatalogueThing, Connector, RemoteListing } from '../connector';
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
  linesAtOnce: 1_500,
  paths: { listings: 'lots', photos: 'lot-photos' },
  rules: lotbarnRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire: Record<string, unknown>) => String(wire.reference ?? ''),
} as const;
const base = restConnector(manner);
const read = listingReader(manner);

type Line = Record<string, unknown> & { op: 'add' | 'change' | 'remove' };
type Row = { ok: true; lot: RemoteListing } | { ok: false; error: unknown };

const rowsSchema = z.array(lineSchema.extend({ lot: z.unknown().optional() }));

/** So long they may be quiet in the middle of a batch that nobody waits for any more, in milliseconds. */
const quietMs = 1_500;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Lots that are live now. */
async function liveLots(session: Session): Promise<RemoteListing[]> {
  const live: RemoteListing[] = [];
  for (let after: string | null = null; ; ) {
    const page: Awaited<ReturnType<typeof base.listPage>> = await base.listPage(session, after);
    live.push(...page.listings.filter((one) => one.state === 'live'));
    if (!page.next) return live;
    after = page.next;
  }
}

/** The same by our number on them. */
const liveByNumber = async (session: Session): Promise<Map<string, RemoteListing>> =>
  new Map((await liveLots(session)).map((one) => [one.sku, one]));

/**
 * The lot that is meant where its number is not known there: the one with our number on it, else the only one without any
 * that is of the same entry, finish and condition, and lies at the same place.
 */
async function sameLot(session: Session, meant: Content): Promise<RemoteListing | null> {
  const lots = await liveLots(session);
  const ours = lots.find((one) => one.sku !== '' && one.sku === meant.sku);
  if (ours) return ours;
  const fields = ['product', 'extra.finish', 'condition', 'extra.place'] as const;
  const same = lots.filter(
    (one) => one.sku === '' && fields.every((field) => (one.content[field] || '') === (meant[field] || '')),
  );
  return same.length === 1 ? (same[0] ?? null) : null;
}

async function sendLines(session: Session, lines: Line[]): Promise<Row[]> {
  const answer = rowsSchema.parse(await session.send({ method: 'POST', path: '/batches', lines }));
  return lines.map((_, index): Row => {
    const row = answer[index];
    if (row?.ok) return { ok: true, lot: read(row.lot) };
    return { ok: false, error: withOurField(lineError(row ?? { ok: false }, manner.name), manner) };
  });
}

/**
 * Lots that are live once a batch that gave no answer comes to rest: who stopped waiting has not stopped them working,
 * and what they are about to make must not be sent again. It rests when two looks, a while apart, find as many.
 */
async function liveAtRest(session: Session): Promise<Map<string, RemoteListing>> {
  for (let before = await liveByNumber(session); ; ) {
    await pause(quietMs);
    const now = await liveByNumber(session);
    if (now.size === before.size) return now;
    before = now;
  }
}

/**
 * Sends a batch. One that breaks off without an answer was done in part, nobody knows how far: what is there already
 * is found by our number and not sent again; the rest goes in halves.
 */
async function sendBatch(session: Session, lines: Line[], tooMuch: () => void): Promise<Row[]> {
  try {
    return await sendLines(session, lines);
  } catch (error) {
    if (lines.length === 1 || !(error instanceof NettingError) || error.code !== 'market-unreachable') throw error;
    tooMuch();
  }
  const adds = lines.some((line) => line.op === 'add');
  const there = adds ? await liveAtRest(session) : new Map<string, RemoteListing>();
  const rows: (Row | null)[] = lines.map((line) => {
    const lot = line.op === 'add' ? there.get(String(line.reference)) : undefined;
    return lot ? { ok: true, lot } : null;
  });
  const open = lines.flatMap((line, index) => (rows[index] ? [] : [{ line, index }]));
  const half = Math.max(1, Math.ceil(open.length / 2));
  for (const part of [open.slice(0, half), open.slice(half)]) {
    if (part.length === 0) continue;
    const answers = await sendBatch(
      session,
      part.map((one) => one.line),
      tooMuch,
    );
    for (const [at, { index }] of part.entries()) rows[index] = answers[at] ?? null;
  }
  return rows.map(
    (row) => row ?? { ok: false, error: new NettingError('market-unreachable', 'Lotbarn left a line out') },
  );
}

const collectorOf = collectors<Line, Row>((holder) => {
  const sending: LineSending<Line, Row> = {
    most: manner.linesAtOnce,
    goes: 1,
    send: (lines) => sendBatch(holder.current, lines, () => collectorOf(holder.current).shrink()),
  };
  return sending;
});

/** One line of a batch and its answer. */
async function line(session: Session, content: Line): Promise<RemoteListing> {
  const row = await collectorOf(session).add(content, session.urgent);
  if (row.ok) return row.lot;
  throw row.error;
}

const salesSchema = z.object({
  sales: z.array(
    z.object({
      date: z.iso.date(),
      cents: z.number().int(),
      quantity: z.number().int(),
      condition: z.string(),
      daysOnSale: z.number(),
      finish: z.string().optional(),
    }),
  ),
});
const partsSchema = z.object({
  parts: z
    .array(
      z.object({
        entry: z.string().min(1).max(60),
        name: z.string().max(500),
        finish: z.string().max(60),
        quantity: z.number().int().min(1).max(100_000),
        grams: z.number().int().min(0).nullable(),
        sort: z.string().max(120).default(''),
        spare: z.boolean(),
        paper: z.boolean(),
        box: z.boolean(),
        set: z.boolean(),
      }),
    )
    .max(20_000),
});
const offersSchema = z.object({
  offers: z.array(
    z.object({
      cents: z.number().int(),
      quantity: z.number().int(),
      condition: z.string(),
      finish: z.string().optional(),
    }),
  ),
});

const renumberedSchema = z.object({ renumbered: z.array(z.object({ was: z.string(), now: z.string() })) });
const entriesSchema = z.object({
  products: z.array(z.object({ id: z.string(), name: z.string().max(500), grams: z.number().int().nullable() })),
});
const entriesAtOnce = 200;

/** Lotbarn: changes travel as lines of JSON; it tells single past sales, and nothing by itself. */
export const lotbarn: Connector = {
  ...base,
  create: (session, { content, photoIds }) => line(session, { op: 'add', ...toWire(content, photoIds) }),
  async change(session, remoteId, { content, photoIds }, fields) {
    const whole = toWire(content, photoIds);
    const part = Object.fromEntries(wireFields(fields).map((field) => [field, whole[field] ?? null]));
    try {
      return await line(session, { op: 'change', lot: remoteId, ...part });
    } catch (error) {
      if (!(error instanceof NettingError) || error.code !== 'not-found') throw error;
      const lot = await sameLot(session, content);
      if (!lot) throw error;
      return line(session, { op: 'change', lot: lot.remoteId, ...whole });
    }
  },
  end: (session, remoteId) => line(session, { op: 'remove', lot: remoteId }),
  findProducts: catalogueAt('/entries'),
  async pastSales(session, productId) {
    const path = `/entries/${encodeURIComponent(productId)}/sales`;
    const { sales } = salesSchema.parse(await session.send({ method: 'GET', path }));
    return sales.map(({ cents, ...one }) => ({ ...one, price: cents, source: manner.name }));
  },
  async contents(session, productId) {
    const path = `/entries/${encodeURIComponent(productId)}/parts`;
    const { parts } = partsSchema.parse(await session.send({ method: 'GET', path }));
    return parts.map(({ spare, paper, box, set, ...one }) => ({
      ...one,
      kind: spare ? ('spare' as const) : paper ? ('paper' as const) : box ? ('box' as const) : ('part' as const),
      isSet: set,
    }));
  },
  async formerNumbers(session) {
    const { renumbered } = renumberedSchema.parse(await session.send({ method: 'GET', path: '/renumbered' }));
    return new Map(renumbered.map(({ was, now }) => [was, now]));
  },
  async entries(session, ids) {
    const all: CatalogueThing[] = [];
    for (let at = 0; at < ids.length; at += entriesAtOnce) {
      const path = `/entries?ids=${ids
        .slice(at, at + entriesAtOnce)
        .map(encodeURIComponent)
        .join(',')}`;
      all.push(...entriesSchema.parse(await session.send({ method: 'GET', path })).products);
    }
    return all;
  },
  async presentOffers(session, productId) {
    const path = `/entries/${encodeURIComponent(productId)}/offers`;
    const { offers } = offersSchema.parse(await session.send({ method: 'GET', path }));
    return offers.map(({ cents, ...one }) => ({ ...one, price: cents }));
  },
};
