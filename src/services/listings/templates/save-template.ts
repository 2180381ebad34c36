import { and, eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { database, isDuplicate } from '../../../db/client';
import { template } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { recheckAccounts } from '../../records/listings/recheck-accounts';
import { checkFields, cleaned, previousOf, type TemplateInput } from './template-input';

const changedMeanwhile = ({ name, byName }: { name: string; byName: string }) =>
  new NettingError('conflict', `“${name}” was changed meanwhile by ${byName}`, {
    fix: 'Look at it in another tab; saved once more, yours takes its place',
  });

/** Makes a template, or changes one; every listing that it may touch is computed anew. */
export async function saveTemplate(
  actor: Actor,
  id: number | null,
  input: TemplateInput,
): Promise<{ id: number; version: number }> {
  await checkFields(input);
  const db = database();
  const [old] = id === null ? [] : await db.select().from(template).where(eq(template.id, id));
  if (id !== null && !old) throw new NettingError('not-found', 'There is no such template');
  const { name, accounts, conditions } = input;
  const fields = cleaned(input.fields);
  const row = {
    name,
    accounts,
    conditions,
    fields,
    print: input.print,
    previous: await previousOf(old ?? null, input),
    byName: actor.name,
    updatedAt: new Date(),
  };
  try {
    if (old) {
      const [{ affectedRows }] = await db
        .update(template)
        .set({ ...row, version: old.version + 1 })
        .where(and(eq(template.id, old.id), eq(template.version, input.version ?? old.version)));
      if (affectedRows === 0) throw changedMeanwhile(old);
    } else await db.insert(template).values(row);
  } catch (error) {
    if (isDuplicate(error))
      throw new NettingError('conflict', 'A template of this name exists already', { field: 'name' });
    throw error;
  }
  const [saved] = await db
    .select({ id: template.id, version: template.version })
    .from(template)
    .where(eq(template.name, name));
  // Listings on accounts that neither the template of before nor that of now names stay as they are.
  const named = old ? [old.accounts, accounts] : [accounts];
  await recheckAccounts(named.some((one) => one.length === 0) ? [] : [...new Set(named.flat())]);
  return { id: saved?.id ?? 0, version: saved?.version ?? 0 };
}
