import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { type OwnField, type OwnValues, ownFault, ownFieldSchema } from '../core/item';
import { database, type Executor, isDuplicate } from '../db/client';
import { ownField } from '../db/schema';

const withoutId = ({ id: _id, ...field }: typeof ownField.$inferSelect): OwnField => field;

export async function loadOwnFields(db: Executor = database()): Promise<OwnField[]> {
  return (await db.select().from(ownField).orderBy(asc(ownField.id))).map(withoutId);
}

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

export const ownFieldKeySchema = z.object({ key: z.string().max(30) }).strict();

/** Takes a field off the sheets. What items say in it is kept, and shows again when it comes back. */
export async function removeOwnField({ key }: z.infer<typeof ownFieldKeySchema>): Promise<void> {
  await database().delete(ownField).where(eq(ownField.key, key));
}

/** Refuses values that do not fit their fields, each at its place. Values of fields that are gone are left alone. */
export async function checkOwnValues(db: Executor, values: OwnValues): Promise<void> {
  const fields = await loadOwnFields(db);
  const faults = fields.flatMap((field) => {
    const fault = ownFault(field, values[field.key] ?? null);
    return fault ? [{ field: `own.${field.key}`, message: fault }] : [];
  });
  const [first] = faults;
  if (first) throw new NettingError('invalid', first.message, { field: first.field, details: faults });
}
