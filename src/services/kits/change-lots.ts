import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { conditionIds } from '../../core/item/condition';
import { takeApart } from '../../core/kit';
import { transaction } from '../../db/client';
import { kitLot } from '../../db/schema';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

const lotFields = z
  .object({
    price: z.number().int().min(1).max(100_000_000_00).nullable(),
    comment: z.string().trim().max(1_000),
    place: z.string().trim().max(60),
    quantity: z.number().int().min(0).max(1_000_000),
    condition: z.enum(conditionIds).nullable(),
    state: z.enum(['open', 'later', 'out']),
  })
  .partial()
  .strict();

export const changeLotsSchema = z
  .object({
    lots: z
      .array(z.object({ id: z.number().int().positive(), baseVersion: z.number().int(), set: lotFields }).strict())
      .min(1)
      .max(2_000),
  })
  .strict();

export const changedLotsSchema = z.object({
  changed: z.array(z.object({ id: z.number(), version: z.number() })),
  refused: z.array(z.object({ id: z.number(), why: z.string() })),
});

/** Changes lots, each where it is still as it was seen; what is in stock already is changed there. */
export async function changeLots(
  id: number,
  { lots }: z.output<typeof changeLotsSchema>,
): Promise<z.infer<typeof changedLotsSchema>> {
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const there = new Map((await lotsOf(tx, id, { ids: lots.map((one) => one.id) })).map((lot) => [lot.id, lot]));
    const done: z.infer<typeof changedLotsSchema> = { changed: [], refused: [] };
    for (const { id: lotId, baseVersion, set } of lots) {
      const lot = there.get(lotId);
      const why = !lot
        ? 'There is no such lot here'
        : lot.state === 'done'
          ? 'It is in stock already: change it there'
          : lot.version === baseVersion
            ? null
            : 'Somebody changed it meanwhile';
      if (why !== null || !lot) {
        done.refused.push({ id: lotId, why: why ?? '' });
        continue;
      }
      const { state, itemId } = lot;
      const version = baseVersion + 1;
      await tx
        .update(kitLot)
        .set({ state, itemId, ...set, version })
        .where(eq(kitLot.id, lotId));
      there.set(lotId, { ...lot, ...set, version });
      done.changed.push({ id: lotId, version });
    }
    return done;
  });
}

export const takeApartSchema = z.object({ lot: z.number().int().positive(), at: z.number().int().min(0) }).strict();

/** Takes one of the joined out of its lot again: a lot of its own, with the same price, comment and place. */
export async function takeLotApart(
  id: number,
  { lot: lotId, at }: z.output<typeof takeApartSchema>,
): Promise<{ lot: number }> {
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const [lot] = await lotsOf(tx, id, { ids: [lotId] });
    if (!lot) throw new NettingError('not-found', 'There is no such lot here');
    if (lot.state === 'done') throw new NettingError('too-late', 'It is in stock already');
    const apart = takeApart(lot, at);
    if (!apart) throw new NettingError('invalid', 'Nothing was joined into this lot', { field: 'at' });
    const { id: _id, version: _version, sku: _sku, ...out } = apart.out;
    await tx
      .update(kitLot)
      .set({ quantity: apart.stays.quantity, from: apart.stays.from, version: lot.version + 1 })
      .where(eq(kitLot.id, lotId));
    const [{ insertId }] = await tx.insert(kitLot).values({ ...out, version: 1 });
    return { lot: insertId };
  });
}
