import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { type OwnField, ownFieldSchema } from '../../core/item';
import { database, isDuplicate } from '../../db/client';
import { ownField } from '../../db/schema';

export const newOwnFieldSchema = ownFieldSchema
  .refine((field) => field.type !== 'choice' || field.choices.length > 0, {
    path: ['choices'],
    message: 'Say what can be chosen',
  })
  .refine((field) => field.from === null || field.to === null || field.from <= field.to, {
    path: ['to'],
    message: 'Not below the least',
  });

/** Adds a field of one's own, or changes it; its key and kind stay. */
export async function saveOwnField(input: OwnField): Promise<{ key: string }> {
  const db = database();
  const [known] = await db.select().from(ownField).where(eq(ownField.key, input.key));
  if (known && known.type !== input.type)
    throw new NettingError('invalid', 'The kind of a field stays as it is: values are kept in it', {
      field: 'type',
      mend: 'Add another field',
    });
  if (known) await db.update(ownField).set(input).where(eq(ownField.id, known.id));
  else {
    try {
      await db.insert(ownField).values(input);
    } catch (error) {
      if (isDuplicate(error)) throw new NettingError('conflict', 'There is such a field already', { field: 'key' });
      throw error;
    }
  }
  return { key: input.key };
}
