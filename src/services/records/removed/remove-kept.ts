import { eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { transaction } from '../../../db/client';
import { removed } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { recheckAccounts } from '../listings/recheck-accounts';
import { recheckPostage } from '../listings/recheck-postage';
import { keptKinds, type RemovedKind } from './kinds';

/** Computes anew what hangs on one that went or came back. */
export async function followKept(kind: RemovedKind, row: Record<string, unknown>): Promise<void> {
  if (kind === 'template') await recheckAccounts(row.accounts as number[]); // a row of `template`
  if (kind === 'box') await recheckPostage();
}

/**
 * Removes one of a kind that can be had back: kept as it was, with who did it. What it was used on stays.
 * @throws NettingError not-found where there is none of that number
 */
export async function removeKept({ name: byName }: Actor, kind: RemovedKind, id: number): Promise<void> {
  const { table, called } = keptKinds[kind];
  const row = await transaction(async (tx) => {
    const [old] = await tx.select().from(table).where(eq(table.id, id)).for('update');
    if (!old) throw new NettingError('not-found', `There is no such ${called}`);
    await tx.insert(removed).values({ kind, was: old.id, name: old.name, row: old, byName, at: new Date() });
    await tx.delete(table).where(eq(table.id, id));
    return old;
  });
  await followKept(kind, row);
}
