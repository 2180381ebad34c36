import { desc } from 'drizzle-orm';
import { z } from 'zod';
import { areaOf, printTemplateSchema } from '../../../core/artwork';
import { NettingError } from '../../../core/errors';
import { storable } from '../../../core/item';
import {
  extraFault,
  type Template,
  templateConditionSchema,
  templateFault,
  templateFieldsSchema,
} from '../../../core/listing';
import { database } from '../../../db/client';
import { item } from '../../../db/schema';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { cleanRichText } from '../../records/items/clean-rich-text';

export const templateInputSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    /** No accounts: for all of them. */
    accounts: z.array(z.number().int().positive()).max(50).default([]),
    conditions: z.array(templateConditionSchema).max(12).default([]),
    fields: templateFieldsSchema,
    /** What artwork is printed on, and how it stands there; null for texts alone. */
    print: printTemplateSchema.nullable().default(null),
    /** A change meant for new items only leaves those that exist as they are. */
    for: z.enum(['all', 'new']).default('all'),
    /** Of which version of it this is a change; one that somebody else changed meanwhile is not overwritten unseen. */
    version: z.number().int().positive().optional(),
  })
  .strict();

export type TemplateInput = z.infer<typeof templateInputSchema>;

/** What a field of a marketplace's own can never hold there, on none of the accounts that have it. */
function ownFault(field: string, text: string, accounts: readonly LoadedAccount[]): string | null {
  if (!field.startsWith('extra.') || /\{[{%]/.test(text)) return null;
  const rules = accounts.flatMap(({ compiled }) => compiled.rules.extras.filter((one) => `extra.${one.id}` === field));
  const faults = rules.map((extra) => extraFault(extra, text));
  return rules.length > 0 && faults.every((one) => one !== null) ? (faults[0] ?? null) : null;
}

/** Refuses texts that cannot be read as templates, and values that a field can never hold, each at its field. */
export async function checkFields({
  fields,
  accounts,
  print,
}: Pick<TemplateInput, 'fields' | 'accounts' | 'print'>): Promise<void> {
  const there = await loadAccounts(database(), accounts.length ? accounts : undefined);
  for (const [field, text] of Object.entries(fields)) {
    const unread = templateFault(text);
    const fault = unread ? `This cannot be read: ${unread}` : ownFault(field, text, there);
    if (fault) throw new NettingError('invalid', fault, { field: `fields.${field}` });
  }
  const nowhere = print?.pieces.find((piece) => !there.some(({ compiled }) => areaOf(piece, compiled)));
  if (nowhere)
    throw new NettingError('invalid', `No marketplace publishes what is printed on “${nowhere.product}”`, {
      field: 'print',
      fix: 'Write its measures by hand, or choose one that is published',
    });
}

/** The description is rich text like any other: cleaned before it is kept. */
export function cleaned(written: Record<string, string>): Record<string, string> {
  const fields = storable(written);
  return fields.description ? { ...fields, description: cleanRichText(fields.description) } : fields;
}

export async function previousOf(
  old: Pick<Template, 'fields' | 'print'> | null,
  input: TemplateInput,
): Promise<Template['previous']> {
  if (input.for === 'all') return null;
  const [last] = await database().select({ id: item.id }).from(item).orderBy(desc(item.id)).limit(1);
  return { untilItem: last?.id ?? 0, fields: old?.fields ?? {}, print: old?.print ?? null };
}
