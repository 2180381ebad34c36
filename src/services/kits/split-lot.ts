import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { conditionIds } from '../../core/item/condition';
import { setApart, takeApart } from '../../core/kit';
import { type Tx, transaction } from '../../db/client';
import { kitLot } from '../../db/schema';
import { type LotNow, lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

const lot = z.number().int().positive();
export const splitLotSchema = z.discriminatedUnion('how', [
  z.object({ how: z.literal('joined'), lot, at: z.number().int().min(0) }).strict(),
  z
    .object({ how: z.literal('pieces'), lot, pieces: z.number().int().min(1), condition: z.enum(conditionIds) })
    .strict(),
]);
type Split = z.output<typeof splitLotSchema>;

/**
 * Makes two lots of one: one of the joined is taken out again, or some pieces that are in another condition. The new one
 * has the same comment and place; another condition has no price yet.
 */
export async function splitLot(id: number, split: Split): Promise<{ lot: number }> {
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const [whole] = await lotsOf(tx, id, { ids: [split.lot] });
    if (!whole) throw new NettingError('not-found', 'There is no such lot here');
    if (whole.state === 'done') throw new NettingError('too-late', 'It is in stock already');
    return { lot: await store(tx, whole, split) };
  });
}

async function store(tx: Tx, whole: LotNow, split: Split): Promise<number> {
  const apart = split.how === 'joined' ? takeApart(whole, split.at) : setApart(whole, split.pieces);
  if (!apart)
    throw split.how === 'joined'
      ? new NettingError('invalid', 'Nothing was joined into this lot', { field: 'at' })
      : new NettingError('invalid', `Of ${whole.quantity} pieces some must stay`, {
          field: 'pieces',
          fix: 'Change the condition of the whole lot instead',
        });
  const { id: _id, version: _version, sku: _sku, photo: _photo, ...out } = apart.out;
  const graded = split.how === 'pieces' ? { condition: split.condition, price: null, basis: null, isKept: false } : {};
  await tx
    .update(kitLot)
    .set({ quantity: apart.stays.quantity, from: apart.stays.from, version: whole.version + 1 })
    .where(eq(kitLot.id, whole.id));
  const [{ insertId }] = await tx.insert(kitLot).values({ ...out, ...graded, version: 1 });
  return insertId;
}
