import { z } from 'zod';
import { fieldsFor } from '../../../core/field';
import { kindSchema } from '../../../core/field/kind';
import { jsonSchema } from '../../../core/json';
import { database } from '../../../db/client';
import { loadAccounts } from '../accounts/load-accounts';
import { loadCustomFields } from './load-custom-fields';

export const findFieldsSchema = z.object({
  account: z.coerce.number().int().optional().describe('Also what may be written for this account alone'),
});

export const fieldViewSchema = z.object({
  id: z.string(),
  label: z.string(),
  on: z.enum(['item', 'listing', 'combination']),
  kind: kindSchema,
  /** The value while nothing is written. */
  empty: jsonSchema,
  traits: z.object({
    identifies: z.boolean().optional(),
    copied: z.boolean().optional(),
    ledger: z.boolean().optional(),
    takeable: z.boolean().optional(),
    sortable: z.boolean().optional(),
    sent: z.string().optional(),
    asked: z.boolean().optional(),
    inside: z.boolean().optional(),
    mono: z.boolean().optional(),
    byItself: z.boolean().optional(),
  }),
});

/** The catalogue of fields as others may read it: what can be said of an item, of a combination, and on one account. */
export async function findFields({ account }: z.infer<typeof findFieldsSchema>): Promise<{
  fields: z.infer<typeof fieldViewSchema>[];
}> {
  const db = database();
  const [shop] = account === undefined ? [] : await loadAccounts(db, [account]);
  const { fields } = fieldsFor(await loadCustomFields(db), shop?.compiled.rules);
  return { fields: fields.map(({ id, label, on, kind, empty, traits }) => ({ id, label, on, kind, empty, traits })) };
}
