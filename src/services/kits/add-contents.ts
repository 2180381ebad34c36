import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { conditionIds } from '../../core/item/condition';
import { expandContents, joinParts, lotMeanings, mostLots, type Parts, partsKey } from '../../core/kit';
import { database, type Tx, transaction } from '../../db/client';
import { kitLot } from '../../db/schema';
import { updateMany } from '../../db/update-many';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';
import { readSource, sourceSchema } from './read-source';

export const addContentsSchema = z
  .object({
    from: sourceSchema,
    times: z.number().int().min(1, 'At least one').max(10_000),
    with: z.array(z.enum(['spare', 'paper', 'box'])),
    opensSets: z.boolean().default(true),
    condition: z.enum(conditionIds).nullable().default(null),
    /** More pieces, or what is known anew of those that are in stock. */
    meant: z.enum(lotMeanings).default('add'),
  })
  .strict();
type AddContents = z.output<typeof addContentsSchema>;

export const addedSchema = z.object({
  pieces: z.number(),
  /** Lots that are new, and those that more was added to. */
  made: z.number(),
  added: z.number(),
  /** What was joined with other lines: how many lines each lot is made of now. */
  joined: z.array(z.object({ name: z.string(), finish: z.string(), lines: z.number() })),
  /** Entries that have another number by now. */
  renumbered: z.array(z.object({ was: z.string(), now: z.string() })),
});
type Added = z.infer<typeof addedSchema>;

/** Puts the contents of so many sets among the lots; what is equal becomes one lot, also with what is there already. */
export async function addContents(id: number, input: AddContents): Promise<Added> {
  const kit = await loadKit(database(), id);
  refuseClosed(kit);
  const { set, within, renumbered } = await readSource(kit, input.from, input.opensSets);
  const parts = joinParts(expandContents(set, within, input));
  if (parts.length === 0)
    throw new NettingError('invalid', 'Nothing of it counts', {
      field: 'with',
      fix: 'Take spares, papers or the box, too',
    });
  return { ...(await transaction((tx) => store(tx, id, parts, input.meant))), renumbered };
}

async function store(
  tx: Tx,
  id: number,
  parts: readonly Parts[],
  meant: AddContents['meant'],
): Promise<Omit<Added, 'renumbered'>> {
  refuseClosed(await loadKit(tx, id, true));
  const there = new Map(
    (await lotsOf(tx, id))
      .filter((lot) => (lot.state === 'open' || lot.state === 'later') && lot.meant === meant)
      .map((lot) => [partsKey(lot), lot]),
  );
  const fresh = parts.filter((one) => !there.has(partsKey(one)));
  if (there.size + fresh.length > mostLots)
    throw new NettingError('invalid', `More than ${mostLots.toLocaleString('en')} lots`, {
      fix: 'Begin another list for what is left',
    });
  const joined: Added['joined'] = [];
  const note = (one: Parts) => {
    if (one.from.length > 1) joined.push({ name: one.name, finish: one.finish, lines: one.from.length });
  };
  const more = parts.flatMap((one) => {
    const lot = there.get(partsKey(one));
    if (!lot) return [];
    const from = [...lot.from, ...one.from];
    note({ ...one, from });
    const set = [
      [kitLot.quantity, lot.quantity + one.quantity],
      [kitLot.grams, lot.grams ?? one.grams],
      [kitLot.from, from],
    ] as const;
    return [{ id: lot.id, set }];
  });
  await updateMany(tx, 'kit_lot', more, sql`r.version = r.version + 1`);
  for (const one of fresh) note(one);
  for (let at = 0; at < fresh.length; at += 500)
    await tx.insert(kitLot).values(
      fresh.slice(at, at + 500).map(({ said, ...one }) => ({
        ...one,
        kitId: id,
        price: said?.price ?? null,
        isKept: (said?.price ?? null) !== null,
        comment: said?.comment ?? '',
        place: said?.place ?? '',
        state: 'open' as const,
        meant,
        itemId: null,
      })),
    );
  const pieces = parts.reduce((sum, one) => sum + one.quantity, 0);
  return { pieces, made: fresh.length, added: parts.length - fresh.length, joined };
}
