import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../config';
import { NettingError } from '../core/errors';
import type { Box } from '../core/measure';
import { boxFor } from '../core/measure';
import { costPerPound, type Quote, quotes, type Tariff } from '../core/price';
import { database } from '../db/client';
import { box, item, shipment, tariff } from '../db/schema';

const tariffSchema = z.object({
  currency: z.literal('EUR'),
  carriers: z.array(
    z.object({
      id: z.string().max(40),
      name: z.string().max(80),
      volumeDivisor: z.number().positive(),
      steps: z.array(z.object({ upToGrams: z.number().int(), cents: z.number().int() })).min(1),
      bands: z.record(z.string(), z.number()),
      longestMm: z.number().int(),
    }),
  ),
});

/** Reads how the carriers compute, so that quotes need no request each. */
export async function refreshTariffs(): Promise<Tariff[]> {
  const answer = await fetch(`${config.marketsUrl}/carriers/api/tariff`, {
    signal: AbortSignal.timeout(10_000),
    redirect: 'error',
  }).catch(() => null);
  if (!answer?.ok) throw new NettingError('market-unreachable', 'The carriers did not answer');
  const { carriers } = tariffSchema.parse(await answer.json());
  for (const doc of carriers)
    await database()
      .insert(tariff)
      .values({ carrier: doc.id, doc, readAt: new Date() })
      .onDuplicateKeyUpdate({ set: { doc, readAt: new Date() } });
  return carriers;
}

export const readTariffs = async (): Promise<Tariff[]> =>
  (await database().select().from(tariff)).map((row) => row.doc);

export const bands = ['near', 'home', 'abroad', 'far'] as const;
export const quoteSchema = z
  .object({
    grams: z.coerce.number().int().min(0).max(1_000_000),
    lengthMm: z.coerce.number().int().min(0).max(20_000).optional(),
    widthMm: z.coerce.number().int().min(0).max(20_000).optional(),
    heightMm: z.coerce.number().int().min(0).max(20_000).optional(),
    band: z.enum(bands).default('home'),
  })
  .strict();

/** What each carrier asks for a parcel. */
export async function quoteParcel(input: z.infer<typeof quoteSchema>): Promise<Quote[]> {
  const { grams, lengthMm, widthMm, heightMm, band } = input;
  const sides: [number, number, number] | null = lengthMm && widthMm && heightMm ? [lengthMm, widthMm, heightMm] : null;
  return quotes(await readTariffs(), { grams, sides, band });
}

export const boxSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(60),
    lengthMm: z.number().int().positive().max(5_000),
    widthMm: z.number().int().positive().max(5_000),
    heightMm: z.number().int().positive().max(5_000),
    grams: z.number().int().min(0).max(50_000),
  })
  .strict();

export const findBoxes = (): Promise<Box[]> => database().select().from(box).orderBy(box.id);

export async function addBox(input: z.infer<typeof boxSchema>): Promise<{ id: number }> {
  const [{ insertId }] = await database().insert(box).values(input);
  return { id: insertId };
}

export async function removeBox(id: number): Promise<void> {
  const [{ affectedRows }] = await database().delete(box).where(eq(box.id, id));
  if (!affectedRows) throw new NettingError('not-found', 'There is no such box');
}

/** The smallest of one's boxes that the item fits into, and what carriers ask for the packed parcel. */
export async function postageOf(
  itemId: number,
): Promise<{ box: Box | null; quotes: Quote[]; perPound: number | null }> {
  const [row] = await database().select().from(item).where(eq(item.id, itemId));
  if (!row) throw new NettingError('not-found', 'There is no such item');
  const { weightGrams, lengthMm, widthMm, heightMm } = row;
  const sides: [number, number, number] | null = lengthMm && widthMm && heightMm ? [lengthMm, widthMm, heightMm] : null;
  const chosen = sides ? boxFor(sides, await findBoxes()) : null;
  const parcel = {
    grams: (weightGrams ?? 0) + (chosen?.grams ?? 0),
    sides: chosen ? ([chosen.lengthMm, chosen.widthMm, chosen.heightMm] as [number, number, number]) : sides,
    band: 'home',
  };
  return {
    box: chosen,
    quotes: weightGrams ? quotes(await readTariffs(), parcel) : [],
    perPound: costPerPound(
      await database()
        .select({ grams: shipment.grams, paid: shipment.paid })
        .from(shipment)
        .orderBy(desc(shipment.at))
        .limit(500),
    ),
  };
}

export const shipmentSchema = z
  .object({
    carrier: z.string().trim().min(1).max(40),
    grams: z.number().int().positive().max(1_000_000),
    paid: z.number().int().min(0).max(10_000_000),
    saleId: z.number().int().positive().optional(),
  })
  .strict();

/** Writes down what a parcel really cost; the cost per pound is learned from it. */
export async function recordPostage(input: z.infer<typeof shipmentSchema>): Promise<void> {
  await database()
    .insert(shipment)
    .values({ ...input, at: new Date() });
}
