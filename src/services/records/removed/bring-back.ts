import { and, eq, getTableColumns } from 'drizzle-orm';
import { z } from 'zod';
import { nextDue, type RoutinePlan } from '../../../core/edit';
import { NettingError } from '../../../core/errors';
import { isDuplicate, transaction } from '../../../db/client';
import { removed, removedKinds, type savedSearch } from '../../../db/schema';
import { keptKinds, type RemovedKind } from './kinds';
import { followKept } from './remove-kept';

export const bringBackSchema = z
  .object({ kind: z.enum(removedKinds), id: z.number().int().positive().describe('The number that it had') })
  .strict();

/** A row as it was kept, as its table takes it today: moments are texts in a document; a column that is gone is left out. */
function asRow(kind: RemovedKind, kept: Record<string, unknown>): typeof savedSearch.$inferInsert {
  const row: Record<string, unknown> = {};
  for (const [name, { dataType }] of Object.entries(getTableColumns(keptKinds[kind].table))) {
    const value = kept[name];
    row[name] = dataType === 'date' && typeof value === 'string' ? new Date(value) : value;
  }
  // What was changed on the one that was removed is not written over this one.
  if (typeof row.version === 'number') row.version += 1;
  // What fell due meanwhile is not made up for.
  if (kind === 'routine' && row.plan) row.dueAt = nextDue(row.plan as RoutinePlan, new Date()); // a row of `routine`
  return row as typeof savedSearch.$inferInsert; // of the same table
}

/**
 * Has one back as it was, with its number, and computes anew what hangs on it.
 * @throws NettingError not-found where it is there already, or was removed too long ago; conflict where its name was given away
 */
export async function bringBack({ kind, id }: z.infer<typeof bringBackSchema>): Promise<void> {
  const { table, called } = keptKinds[kind];
  const row = await transaction(async (tx) => {
    const which = and(eq(removed.kind, kind), eq(removed.was, id));
    const [kept] = await tx.select().from(removed).where(which).for('update');
    if (!kept) throw new NettingError('not-found', 'It is there again already, or was removed too long ago');
    await tx.delete(removed).where(which);
    try {
      await tx.insert(table).values(asRow(kind, kept.row));
    } catch (error) {
      if (isDuplicate(error))
        throw new NettingError('conflict', `There is a ${called} “${kept.name}” already`, {
          field: 'name',
          fix: 'Call that one otherwise first',
        });
      throw error;
    }
    return kept.row;
  });
  await followKept(kind, row);
}
