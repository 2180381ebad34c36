import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { intakeSettingsSchema } from '../../core/batch/settings';
import { NettingError } from '../../core/errors';
import { database, isDuplicate } from '../../db/client';
import { intakePreset } from '../../db/schema';
import type { Actor } from '../access/actor';

export const presetViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  name: z.string(),
  settings: intakeSettingsSchema,
});

export const savePresetSchema = z
  .object({
    name: z.string().trim().min(1, 'A name, by which it is chosen').max(60),
    settings: intakeSettingsSchema,
    /** Of one that is there already: the version that the change was made on. */
    baseVersion: z.number().int().positive().optional(),
  })
  .strict();

/** Keeps settings under a name; those of that name become these, when the change was made on what they are. */
export async function savePreset(
  actor: Actor,
  { name, settings, baseVersion }: z.infer<typeof savePresetSchema>,
): Promise<{ id: number }> {
  const db = database();
  const kept = { settings, byName: actor.name, at: new Date() };
  if (baseVersion === undefined)
    try {
      const [{ insertId: id }] = await db.insert(intakePreset).values({ name, ...kept });
      return { id };
    } catch (error) {
      if (!isDuplicate(error)) throw error;
      throw new NettingError('conflict', `There are settings called ${name} already`, {
        field: 'name',
        fix: 'Give them another name, or choose those and change them',
      });
    }
  const [{ affectedRows }] = await db
    .update(intakePreset)
    .set({ ...kept, version: sql`${intakePreset.version} + 1` })
    .where(and(eq(intakePreset.name, name), eq(intakePreset.version, baseVersion)));
  const [row] = await db.select({ id: intakePreset.id }).from(intakePreset).where(eq(intakePreset.name, name));
  if (!row) throw new NettingError('not-found', `There are no settings called ${name}`);
  if (affectedRows !== 1)
    throw new NettingError('conflict', 'Somebody changed these settings meanwhile', { fix: 'Choose them anew' });
  return row;
}
