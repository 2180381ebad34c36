import { NettingError } from '../../core/errors';
import { type OwnValues, ownFault } from '../../core/item';
import type { Executor } from '../../db/client';
import { loadOwnFields } from '../records/load-own-fields';

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
