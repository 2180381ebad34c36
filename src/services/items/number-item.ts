import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { numbering } from '../changes/commit/free-sku';
import { updateItem } from '../changes/update-item';
import { loadItem } from '../records/items/load-items';

/** Gives an item a new stock number by the pattern, from what is known of it by now. */
export async function numberItem(actor: Actor, itemId: number): Promise<{ sku: string; version: number }> {
  const { sku, version } = await transaction(async (tx) => {
    const item = await loadItem(tx, itemId);
    const { location, supplier, brand, category } = item;
    const next = await numbering(tx);
    return { sku: await next({ location, supplier, brand, category, day: new Date() }), version: item.version };
  });
  const saved = await updateItem(actor, itemId, { baseVersion: version, patch: { sku } });
  return { sku, version: saved.version };
}
