import { desc, eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { type Box, parcelOf } from '../../../core/measure';
import { costPerPound, homeBand, type Quote, quotes } from '../../../core/price';
import { database } from '../../../db/client';
import { item, postagePaid } from '../../../db/schema';
import { findBoxes } from '../../records/accounts/find-boxes';
import { readSettings } from '../../records/accounts/read-settings';
import { readTariffs } from '../../records/accounts/read-tariffs';

/** The smallest of one's boxes that the item fits into, and what carriers ask for the packed parcel. */
export async function postageOf(
  itemId: number,
): Promise<{ box: Box | null; quotes: Quote[]; perPound: number | null }> {
  const db = database();
  const [row] = await db.select().from(item).where(eq(item.id, itemId));
  if (!row) throw new NettingError('not-found', 'There is no such item');
  const [boxes, { packaging }, tariffs] = await Promise.all([findBoxes(db), readSettings(db), readTariffs(db)]);
  const { grams, sides, box } = parcelOf(row, boxes, packaging);
  return {
    box,
    quotes: grams ? quotes(tariffs, { grams, sides, band: homeBand }) : [],
    perPound: costPerPound(
      await db
        .select({ grams: postagePaid.grams, paid: postagePaid.paid })
        .from(postagePaid)
        .orderBy(desc(postagePaid.at))
        .limit(500),
    ),
  };
}
