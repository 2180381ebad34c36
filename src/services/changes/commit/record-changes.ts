import { sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { valuesList } from '../../../db/literal';
import type { changeRecord } from '../../../db/schema';
import type { Actor } from '../../access/actor';

type NewChange = typeof changeRecord.$inferInsert;

export type ChangeContext = { actor: Actor; why: NewChange['why']; at: Date; runId?: number };

/** Writes what was changed into the record that history and undo read. */
export async function recordChanges(
  db: Executor,
  context: ChangeContext,
  changes: {
    itemId: number;
    listingId?: number;
    combination?: string;
    itemVersion: number;
    field: string;
    from: unknown;
    to: unknown;
  }[],
): Promise<void> {
  if (changes.length === 0) return;
  const rows = changes.map((one) => [
    one.itemId,
    one.listingId ?? null,
    one.combination ?? null,
    context.runId ?? null,
    one.itemVersion,
    one.field,
    JSON.stringify(one.from ?? null),
    JSON.stringify(one.to ?? null),
    context.why,
    context.actor.name,
    context.at,
  ]);
  await db.execute(
    sql`insert into change_record (item_id, listing_id, combination, run_id, item_version, field, old_value, new_value, why, by_name, at) values ${valuesList(rows)}`,
  );
}
