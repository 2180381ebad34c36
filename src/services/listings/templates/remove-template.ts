import { eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { isDuplicate, transaction } from '../../../db/client';
import { template } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { recheckAccounts } from '../../records/listings/recheck-accounts';
import { keepRemoved, takeRemoved } from '../../records/removed/removed';

/** Removes a template; listings are computed without it. It can be had back. */
export async function removeTemplate(actor: Actor, id: number): Promise<void> {
  const accounts = await transaction(async (tx) => {
    const [old] = await tx.select().from(template).where(eq(template.id, id)).for('update');
    if (!old) throw new NettingError('not-found', 'There is no such template');
    await keepRemoved(tx, actor, 'template', old);
    await tx.delete(template).where(eq(template.id, id));
    return old.accounts;
  });
  await recheckAccounts(accounts);
}

/** A removed template as it was; listings are computed with it again. */
export async function bringBackTemplate(id: number): Promise<void> {
  const accounts = await transaction(async (tx) => {
    const row = (await takeRemoved(tx, 'template', id)) as typeof template.$inferSelect; // only `removeTemplate` keeps this kind
    try {
      await tx.insert(template).values({ ...row, version: row.version + 1, updatedAt: new Date() });
    } catch (error) {
      if (isDuplicate(error))
        throw new NettingError('conflict', `A template “${row.name}” exists already`, {
          field: 'name',
          fix: 'Call that one otherwise first',
        });
      throw error;
    }
    return row.accounts;
  });
  await recheckAccounts(accounts);
}
