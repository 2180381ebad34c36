import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { fieldValue, itemFieldIds, takeable } from '../../core/field';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { loadItem } from '../records/items/load-items';
import { commitItems } from './commit/commit-items';
import { allCommitted } from './commit/refusal-error';

export const takeOverSchema = z
  .object({
    from: z.number().int().positive(),
    fields: z.array(z.enum(itemFieldIds)).min(1, 'Choose at least one field').max(40),
    to: z.array(z.number().int().positive()).min(1, 'Choose at least one item').max(50),
  })
  .strict();

/** Takes fields of one item over into others; each is a change of that item, with its history. */
export async function takeOver(
  actor: Actor,
  input: z.infer<typeof takeOverSchema>,
): Promise<{ changed: number[]; unchanged: number[] }> {
  const fields = input.fields.filter(takeable);
  if (fields.length === 0)
    throw new NettingError('invalid', 'These fields belong to one piece alone', { field: 'fields' });
  const to = [...new Set(input.to)].filter((id) => id !== input.from);
  return transaction(async (tx) => {
    const source = await loadItem(tx, input.from);
    const changes = to.flatMap((item) =>
      fields.map((field) => ({ target: { item }, field, to: fieldValue(source, field) })),
    );
    const { items } = allCommitted(
      await commitItems(tx, to, () => changes, { actor, why: 'typing', at: new Date(), send: 'falls' }),
    );
    const changed = items.filter((one) => one.changes.length > 0).map((one) => one.itemId);
    return { changed, unchanged: to.filter((id) => !changed.includes(id)) };
  });
}
