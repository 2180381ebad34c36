import { desc, eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { type Box, boxFor } from '../../core/measure';
import { costPerPound, type Quote, quotes } from '../../core/price';
import { database } from '../../db/client';
import { item, postagePaid } from '../../db/schema';
import { findBoxes } from './find-boxes';
import { readTariffs } from './read-tariffs';

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
        .select({ grams: postagePaid.grams, paid: postagePaid.paid })
        .from(postagePaid)
        .orderBy(desc(postagePaid.at))
        .limit(500),
    ),
  };
}
