import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { shareWays } from '../../core/batch';
import { firstSettings, intakeSettingsSchema, withCostsOf } from '../../core/batch/settings';
import { NettingError } from '../../core/errors';
import { readSkuPattern, storable } from '../../core/item';
import { database, transaction } from '../../db/client';
import { batch, batchStates, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadBatch } from '../records/batches/load-batch';

/** A prefix alone counts on behind itself. */
const asPattern = (text: string): string => (text === '' || text.includes('{') ? text : `${text}{seq}`);

const patternSchema = z
  .string()
  .trim()
  .max(74)
  .superRefine((text, context) => {
    const read = text === '' ? null : readSkuPattern(asPattern(text));
    if (read && 'problem' in read) context.addIssue({ code: 'custom', message: read.problem });
  });

const batchFields = z
  .object({
    name: z.string().trim().min(1, 'A name, so that it is found again').max(120),
    supplier: z.string().trim().max(120),
    boughtOn: z.iso.date().nullable(),
    invoice: z.string().trim().max(80),
    totalCost: z.number().int().min(0).max(100_000_000_00).nullable(),
    shareBy: z.enum(shareWays),
    shares: z.record(z.string().regex(/^\d{1,12}$/), z.number().int().min(0).max(100_000_000_00)),
    skuPattern: patternSchema,
    state: z.enum(batchStates),
    settings: intakeSettingsSchema,
  })
  .strict();

export const newBatchSchema = batchFields.omit({ state: true, shares: true }).partial({
  supplier: true,
  boughtOn: true,
  invoice: true,
  totalCost: true,
  shareBy: true,
  skuPattern: true,
  settings: true,
});

export const changeBatchSchema = batchFields.partial().extend({
  /** The version that the change was made on. */
  baseVersion: z.number().int().positive(),
});

type Change = Omit<z.output<typeof changeBatchSchema>, 'baseVersion'>;

const withPattern = <T extends { skuPattern?: string }>(input: T): T =>
  input.skuPattern === undefined ? input : { ...input, skuPattern: asPattern(input.skuPattern) };

/** A change without what its author was not told; its settings with what stands there. */
async function asUntold(id: number, { totalCost, shareBy, shares, settings, ...rest }: Change): Promise<Change> {
  if (!settings) return rest;
  return { ...rest, settings: withCostsOf(settings, (await loadBatch(database(), id)).settings) };
}

/** Begins a batch, and the run as which it can be taken back. */
export async function createBatch(actor: Actor, input: z.output<typeof newBatchSchema>): Promise<{ id: number }> {
  const given = withPattern(storable(input));
  return transaction(async (tx) => {
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'intake', title: `Batch ${given.name}`, detail: {}, byName: actor.name });
    const [{ insertId: id }] = await tx.insert(batch).values({
      supplier: '',
      boughtOn: null,
      invoice: '',
      totalCost: null,
      shareBy: 'number',
      skuPattern: '',
      settings: firstSettings,
      ...given,
      shares: {},
      state: 'open',
      runId,
      byName: actor.name,
      createdAt: new Date(),
    });
    return { id };
  });
}

/**
 * Changes what is written of a batch; what somebody else wrote meanwhile is not overwritten unseen.
 * @param seesCosts false for who was not told what was paid: that stays as it is
 */
export async function changeBatch(
  id: number,
  { baseVersion, ...input }: z.output<typeof changeBatchSchema>,
  seesCosts = true,
): Promise<{ version: number }> {
  const given = withPattern(storable(seesCosts ? input : await asUntold(id, input)));
  const [{ affectedRows }] = await database()
    .update(batch)
    .set({ ...given, version: sql`${batch.version} + 1` })
    .where(and(eq(batch.id, id), eq(batch.version, baseVersion)));
  const now = await loadBatch(database(), id);
  if (affectedRows === 1) return { version: now.version };
  throw new NettingError('conflict', 'Somebody changed this batch meanwhile', {
    fix: 'Look at it anew, then change it',
  });
}
