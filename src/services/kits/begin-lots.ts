import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { isReady, joiningSchema, placeChoices, priceChoices, speaksOfStock } from '../../core/kit';
import { type Tx, transaction } from '../../db/client';
import { type KitRow, kit, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { startTask } from '../records/tasks/start-task';
import { type LotNow, lotsOf } from './find-kit';
import { loadKit, refuseBusy, refuseClosed } from './load-kit';
import type { LotsTask } from './lots-task';

const lotNumber = z.number().int().positive();
const some = z.array(lotNumber).min(1).max(20_000).optional();
const anyway = z.boolean().default(false).describe('Also lots that belong to the other action');

export const addLotsSchema = z
  .object({
    /** Only these lots; every ready one when left out. */
    lots: some,
    joining: joiningSchema.default({ price: 'kept', place: 'kept' }),
    /** Where one lot is joined otherwise. */
    choices: z
      .array(z.object({ lot: lotNumber, price: z.enum(priceChoices), place: z.enum(placeChoices) }).strict())
      .max(20_000)
      .default([]),
    /** Which item each lot was shown to be the same as: where it is another by then, the lot stays. */
    seen: z
      .array(z.object({ lot: lotNumber, item: lotNumber.nullable() }).strict())
      .max(20_000)
      .optional(),
    anyway,
    /** On the marketplace whose catalogue it is, too. */
    publish: z.boolean().default(false),
  })
  .strict();

export const changeThereSchema = z.object({ lots: some, anyway, units: z.boolean().default(false) }).strict();

export const begunLotsSchema = z.object({ taskId: z.number(), runId: z.number(), lots: z.number() });

const mostNamed = 3;

/** Says of lots that they belong to the other action, naming the first of them. */
function refuse(lots: readonly LotNow[], why: string, fix: string): never {
  const count = lots.length;
  const names = lots.slice(0, mostNamed).map((lot) => `${lot.name} ${lot.finish}`.trim());
  const more = count > mostNamed ? ', …' : '';
  const these = count === 1 ? 'One of these lots is' : `${count.toLocaleString('en')} of these lots are`;
  throw new NettingError('conflict', `${these} ${why} (${names.join(', ')}${more})`, { field: 'lots', fix });
}

async function begin(tx: Tx, actor: Actor, row: KitRow, input: LotsTask) {
  const isAdd = input.do === 'add';
  const title = `${isAdd ? 'Parts of' : 'Changes of'} ${row.name}`;
  const [{ insertId: runId }] = await tx
    .insert(run)
    .values({ kind: isAdd ? 'intake' : 'edit', title, detail: {}, byName: actor.name });
  const task = await startTask(tx, actor, { kind: 'lots', title, input, total: input.lots.length, runId });
  await tx.update(kit).set({ taskId: task.id }).where(eq(kit.id, row.id));
  return { taskId: task.id, runId, lots: input.lots.length };
}

/** Begins to add lots to the stock; what is meant to change what is there is refused. */
export async function addLots(actor: Actor, id: number, { lots: wanted, ...how }: z.output<typeof addLotsSchema>) {
  return transaction(async (tx) => {
    const row = await loadKit(tx, id, true);
    refuseClosed(row);
    await refuseBusy(tx, row);
    const only = wanted && new Set(wanted);
    const named = (await lotsOf(tx, id)).filter((lot) => lot.state !== 'out' && (!only || only.has(lot.id)));
    const strangers = only ? named.filter(speaksOfStock) : [];
    if (strangers.length && !how.anyway)
      refuse(
        strangers,
        'in stock already, or meant to change what is: adding would count the pieces twice',
        'Change what is there instead, or add the pieces once more',
      );
    const ready = named.filter(
      (lot) =>
        (!speaksOfStock(lot) || (how.anyway && only)) &&
        isReady({ ...lot, state: lot.state === 'done' ? 'open' : lot.state }),
    );
    if (ready.length === 0)
      throw new NettingError('invalid', 'None of these lots is ready', {
        field: 'lots',
        fix: 'A lot is ready when it has pieces and a price',
      });
    return begin(tx, actor, row, { do: 'add', kit: id, lots: ready.map((lot) => lot.id), ...how });
  });
}

/** Begins to change what is in stock by what lots say; what is not there is refused. */
export async function changeThere(
  actor: Actor,
  id: number,
  { lots: wanted, ...how }: z.output<typeof changeThereSchema>,
) {
  return transaction(async (tx) => {
    const row = await loadKit(tx, id, true);
    refuseClosed(row);
    await refuseBusy(tx, row);
    const only = wanted && new Set(wanted);
    const named = (await lotsOf(tx, id)).filter((lot) => lot.state !== 'out' && (!only || only.has(lot.id)));
    const strangers = only ? named.filter((lot) => !speaksOfStock(lot)) : [];
    if (strangers.length && !how.anyway)
      refuse(
        strangers,
        'more pieces, which are not in stock yet: there is nothing to change',
        'Add them instead, or change what they are the same as',
      );
    const meant = named.filter((lot) =>
      lot.state === 'done' ? lot.edited.length > 0 : lot.meant === 'change' || (how.anyway && only),
    );
    if (meant.length === 0)
      throw new NettingError('invalid', 'Nothing was changed here since it went into stock', { field: 'lots' });
    return begin(tx, actor, row, { do: 'change', kit: id, lots: meant.map((lot) => lot.id), ...how });
  });
}
