import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { type CustomField, customFieldSchema } from '../../core/item';
import { database, isDuplicate } from '../../db/client';
import { customField } from '../../db/schema';

export const newCustomFieldSchema = customFieldSchema
  .refine((field) => field.type !== 'choice' || field.choices.length > 0, {
    path: ['choices'],
    message: 'Say what can be chosen',
  })
  .refine((field) => field.from === null || field.to === null || field.from <= field.to, {
    path: ['to'],
    message: 'Not below the least',
  });

/** Adds a field of one's own, or changes it; its key and kind stay. */
export async function saveCustomField(input: CustomField): Promise<{ key: string }> {
  const db = database();
  const [known] = await db.select().from(customField).where(eq(customField.key, input.key));
  if (known && known.type !== input.type)
    throw new NettingError('invalid', 'The kind of a field stays as it is: values are kept in it', {
      field: 'type',
      fix: 'Add another field',
    });
  if (known) await db.update(customField).set(input).where(eq(customField.id, known.id));
  else {
    try {
      await db.insert(customField).values(input);
    } catch (error) {
      if (isDuplicate(error)) throw new NettingError('conflict', 'There is such a field already', { field: 'key' });
      throw error;
    }
  }
  return { key: input.key };
}
