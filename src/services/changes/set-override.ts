import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { listingField } from '../../core/field';
import { jsonSchema } from '../../core/json';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from './commit/commit-items';
import { allCommitted } from './commit/refusal-error';

const fieldName = z
  .string()
  .max(80)
  .refine((field) => listingField(field) !== undefined, 'There is no such field');

export const setOverrideSchema = z
  .object({ field: fieldName, value: jsonSchema.optional().describe('Left out: back to the item’s own value') })
  .strict();

/** Writes a field for one marketplace alone, or takes that back so that it follows the item again. */
export async function setOverride(
  actor: Actor,
  item: number,
  account: number,
  { field, value }: z.infer<typeof setOverrideSchema>,
): Promise<void> {
  if (JSON.stringify(value ?? null).length > 120_000) throw new NettingError('invalid', 'This is too long', { field });
  const change = { target: { item, account }, field, ...(value === undefined ? {} : { to: value }) };
  await transaction(async (tx) =>
    allCommitted(
      await commitItems(tx, [item], () => [change], { actor, why: 'typing', at: new Date(), send: 'falls' }),
    ),
  );
}
