import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type ItemField, type ItemPatch, itemFieldsSchema } from '../../core/item';
import { database } from '../../db/client';
import type { Actor } from '../access/actor';
import { loadItem } from '../records/load-items';
import { updateItem } from './update-item';

/** Fields that identify one piece: they are never taken over from another. */
const identifying: readonly ItemField[] = ['sku', 'variations', 'axes'];
const fieldNames = Object.keys(itemFieldsSchema.shape) as [ItemField, ...ItemField[]]; // keys of the item's own schema

export const takeOverSchema = z
  .object({
    from: z.number().int().positive(),
    fields: z.array(z.enum(fieldNames)).min(1, 'Choose at least one field').max(40),
    to: z.array(z.number().int().positive()).min(1, 'Choose at least one item').max(50),
  })
  .strict();

/** Takes fields of one item over into others; each is a change of that item, with its history. */
export async function takeOver(
  actor: Actor,
  input: z.infer<typeof takeOverSchema>,
): Promise<{ changed: number[]; unchanged: number[] }> {
  const fields = input.fields.filter((field) => !identifying.includes(field));
  if (fields.length === 0)
    throw new NettingError('invalid', 'These fields belong to one piece alone', { field: 'fields' });
  const source = await loadItem(database(), input.from);
  const patch: ItemPatch = Object.fromEntries(fields.map((field) => [field, source[field]]));
  const changed: number[] = [];
  const unchanged: number[] = [];
  for (const id of input.to) {
    if (id === input.from) continue;
    const { version } = await loadItem(database(), id);
    const after = await updateItem(actor, id, { baseVersion: version, patch });
    (after.version === version ? unchanged : changed).push(id);
  }
  return { changed, unchanged };
}
