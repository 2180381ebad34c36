import type { Change } from '../../core/change';
import { itemPatchSchema } from '../../core/item';
import type { Json } from '../../core/json';
import { type CellPlan, placeOf } from '../../core/table';
import type { Executor } from '../../db/client';
import type { TaskRow } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { recordChanges } from '../changes/commit/record-changes';
import { createItemWithin } from '../items/create-item';
import { madeKey } from '../records/items/made-key';
import { knownPhotos } from '../records/photos/known-photos';
import type { StagedRow } from './changes-of';

/**
 * Makes an item of a row that is of none.
 * @returns why it cannot be made; null when it was
 */
export async function makeNewItem(tx: Executor, row: StagedRow, task: TaskRow, send: boolean): Promise<string | null> {
  const actor: Actor = { id: task.byId, name: task.byName };
  const cells = row.cells as CellPlan[]; // written by `checkStep`
  const fields: Record<string, Json> = {};
  const attributes: Record<string, string> = {};
  const own: Record<string, Json> = {};
  let quantity = 1;
  let photos: string[] = [];
  const there: { account: number; field: string; to: Json }[] = [];
  for (const { column, to } of cells) {
    const place = placeOf(column);
    if (place?.of === 'listing') there.push({ account: place.account, field: place.field, to });
    if (place?.of !== 'item') continue;
    if (place.field.startsWith('attributes.')) attributes[place.field.slice('attributes.'.length)] = String(to);
    else if (place.field.startsWith('own.')) own[place.field.slice('own.'.length)] = to;
    else if (place.field === 'quantity') quantity = Number(to);
    else if (place.field === 'photos') photos = Array.isArray(to) ? to.map(String) : [];
    else fields[place.field] = to;
  }
  const parsed = itemPatchSchema.safeParse({ ...fields, attributes, own });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'It is no item';
  const { id } = await createItemWithin(tx, actor, {
    fields: parsed.data,
    quantity,
    key: madeKey(`file ${row.importId} line ${row.line}`),
  });
  // Taken back with the run, it is gone from the inventory again.
  const context = { actor, why: 'import' as const, at: new Date(), runId: task.runId ?? undefined };
  await recordChanges(tx, context, [{ itemId: id, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' }]);
  const more: Change[] = [
    ...(photos.length ? [{ target: { item: id }, field: 'photos', to: photos }] : []),
    ...there.map(({ account, field, to }): Change => ({ target: { item: id, account }, field, to })),
  ];
  if (more.length)
    await commitItems(tx, [id], () => more, {
      ...context,
      send: send ? 'all' : 'falls',
      photos: await knownPhotos(tx, photos),
    });
  return null;
}
