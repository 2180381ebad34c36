import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import type { Tx } from '../../db/client';
import { item, itemPhoto } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recordChanges } from '../changes/record-changes';
import { refreshListings } from '../records/refresh-listings';

export const hash = z.string().regex(/^[0-9a-f]{64}$/);

export type Place = { hash: string; flaw: string | null };

export async function positionsOf(tx: Tx, itemId: number): Promise<Place[]> {
  // The item is locked first: two uploads at once must not take the same place.
  const [row] = await tx.select({ id: item.id }).from(item).where(eq(item.id, itemId)).for('update');
  if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
  return tx
    .select({ hash: itemPhoto.hash, flaw: itemPhoto.flaw })
    .from(itemPhoto)
    .where(eq(itemPhoto.itemId, itemId))
    .orderBy(asc(itemPhoto.position), asc(itemPhoto.id));
}

export const hashes = (places: Place[]) => places.map((place) => place.hash);

export async function writePositions(
  tx: Tx,
  actor: Actor,
  itemId: number,
  from: Place[],
  to: Place[],
  at: Date,
): Promise<{ photos: string[] }> {
  const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId));
  const version = (row?.version ?? 0) + 1;
  await tx.delete(itemPhoto).where(eq(itemPhoto.itemId, itemId));
  if (to.length) await tx.insert(itemPhoto).values(to.map((place, position) => ({ itemId, position, ...place })));
  await tx
    .update(item)
    .set({ mainPhoto: to[0]?.hash ?? null, photoCount: to.length, version, updatedAt: at })
    .where(eq(item.id, itemId));
  await recordChanges(tx, { actor, why: 'typing', at }, [
    { itemId, itemVersion: version, field: 'photos', from: hashes(from), to: hashes(to) },
  ]);
  await refreshListings(tx, [itemId]);
  return { photos: hashes(to) };
}
