import { asc } from 'drizzle-orm';
import { database } from '../../../db/client';
import { intakePreset } from '../../../db/schema';

/** Settings of an intake that were given a name, in the order in which they were. */
export const findPresets = () =>
  database()
    .select({
      id: intakePreset.id,
      version: intakePreset.version,
      name: intakePreset.name,
      settings: intakePreset.settings,
    })
    .from(intakePreset)
    .orderBy(asc(intakePreset.id));
