import type { Executor } from '../../db/client';
import { changeRecord } from '../../db/schema';
import type { Actor } from '../access/actor';

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
  await db.insert(changeRecord).values(
    changes.map((one) => ({
      ...one,
      why: context.why,
      byName: context.actor.name,
      at: context.at,
      runId: context.runId ?? null,
    })),
  );
}
