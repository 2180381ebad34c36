import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { storable } from '../../core/item';
import { database } from '../../db/client';
import { consignment, labellers } from '../../db/schema';
import type { Actor } from '../access/actor';
import { inboundOf } from './inbound-of';
import { loadConsignment } from './load-consignment';

const minorUnits = z.number().int().min(0).max(1_000_000);

const consignmentFields = z
  .object({
    name: z.string().trim().min(1, 'A name, so that it is found again').max(120),
    labels: z.enum(labellers),
    labelSeconds: z.number().int().min(0).max(3_600),
    hourCost: minorUnits,
    prep: z.string().trim().max(120),
    prepCost: minorUnits,
    boxUnits: z.number().int().min(0).max(10_000),
    sellsThere: z.boolean(),
  })
  .strict();

export const newConsignmentSchema = consignmentFields
  .partial()
  .required({ name: true })
  .extend({ account: z.number().int().positive() });

export const changeConsignmentSchema = consignmentFields.partial().extend({
  /** The version that the change was made on. */
  baseVersion: z.number().int().positive(),
});

/** Begins a consignment to the warehouses of an account. */
export async function createConsignment(
  actor: Actor,
  { account, ...input }: z.output<typeof newConsignmentSchema>,
): Promise<{ id: number }> {
  await inboundOf(account);
  const [{ insertId: id }] = await database()
    .insert(consignment)
    .values({
      labels: 'self',
      labelSeconds: 12,
      hourCost: 1_500,
      prep: '',
      prepCost: 0,
      boxUnits: 0,
      sellsThere: true,
      ...storable(input),
      accountId: account,
      state: 'choosing',
      units: [],
      limits: null,
      plans: [],
      planId: null,
      byName: actor.name,
      createdAt: new Date(),
    });
  return { id };
}

/** Changes what is written of a consignment. How it is labelled is part of a plan: it stays once one is taken. */
export async function changeConsignment(
  id: number,
  { baseVersion, ...input }: z.output<typeof changeConsignmentSchema>,
): Promise<{ version: number }> {
  const now = await loadConsignment(database(), id);
  if (now.state !== 'choosing' && input.labels !== undefined && input.labels !== now.labels)
    throw new NettingError('too-late', 'The plan that was taken says who labels', { field: 'labels' });
  const [{ affectedRows }] = await database()
    .update(consignment)
    .set({ ...storable(input), version: sql`${consignment.version} + 1` })
    .where(and(eq(consignment.id, id), eq(consignment.version, baseVersion)));
  if (affectedRows === 1) return { version: baseVersion + 1 };
  throw new NettingError('conflict', 'Somebody changed this consignment meanwhile', {
    fix: 'Look at it anew, then change it',
  });
}
