import { and, eq, inArray } from 'drizzle-orm';
import { database } from '../../../db/client';
import { mapping } from '../../../db/schema';
import type { Actor } from '../../access/actor';

/** Keeps catalogue products under what identifies the thing. */
export async function keepProducts(
  actor: Actor,
  market: string,
  found: { key: string; id: string; name: string; categoryId: string | null }[],
): Promise<void> {
  if (found.length === 0) return;
  const db = database();
  const at = new Date();
  await db.delete(mapping).where(
    and(
      eq(mapping.market, market),
      eq(mapping.kind, 'product'),
      inArray(
        mapping.source,
        found.map((one) => one.key),
      ),
    ),
  );
  await db.insert(mapping).values(
    found.map(({ key, id, name, categoryId }) => ({
      market,
      kind: 'product' as const,
      attribute: '',
      source: key,
      target: id,
      detail: { name, categoryId },
      byName: actor.name,
      at,
    })),
  );
}
