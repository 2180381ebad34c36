import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { storable } from '../../core/item';
import { database } from '../../db/client';
import { kit, kitStates } from '../../db/schema';
import type { Actor } from '../access/actor';
import { setAccounts } from './find-kits';
import { loadKit } from './load-kit';

export const kitShareWays = ['price', 'weight', 'number'] as const;

const kitFields = z
  .object({
    name: z.string().trim().min(1, 'A name, so that it is found again').max(120),
    supplier: z.string().trim().max(120),
    totalCost: z.number().int().min(0).max(100_000_000_00).nullable(),
    shareBy: z.enum(kitShareWays),
    state: z.enum(kitStates),
    placeHolds: z.number().int().min(1).max(10_000).nullable(),
  })
  .strict();

export const newKitSchema = kitFields
  .omit({ state: true, placeHolds: true })
  .partial()
  .required({ name: true })
  .extend({ account: z.number().int().positive().nullable().default(null) });

export const changeKitSchema = kitFields.partial().extend({
  /** The version that the change was made on. */
  baseVersion: z.number().int().positive(),
});

/** Begins to break sets up. */
export async function createKit(
  actor: Actor,
  { account, ...input }: z.output<typeof newKitSchema>,
): Promise<{ id: number }> {
  if (account !== null && !(await setAccounts()).some((one) => one.id === account))
    throw new NettingError('invalid', 'This account has no catalogue of sets', { field: 'account' });
  const given = storable(input);
  const [{ insertId: id }] = await database()
    .insert(kit)
    .values({
      supplier: '',
      totalCost: null,
      shareBy: 'price',
      ...given,
      name: input.name,
      accountId: account,
      state: 'open',
      byName: actor.name,
      createdAt: new Date(),
    });
  return { id };
}

/** Changes what is written of sets that are broken up. */
export async function changeKit(
  id: number,
  { baseVersion, ...input }: z.output<typeof changeKitSchema>,
): Promise<{ version: number }> {
  await loadKit(database(), id);
  const [{ affectedRows }] = await database()
    .update(kit)
    .set({ ...storable(input), version: sql`${kit.version} + 1` })
    .where(and(eq(kit.id, id), eq(kit.version, baseVersion)));
  if (affectedRows === 1) return { version: baseVersion + 1 };
  throw new NettingError('conflict', 'Somebody changed these sets meanwhile', {
    fix: 'Look at them anew, then change them',
  });
}
