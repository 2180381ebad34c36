import { NettingError } from '../../core/errors';
import { type CustomValues, customFieldFault } from '../../core/item';
import type { Executor } from '../../db/client';
import { loadCustomFields } from '../records/load-custom-fields';

/** Refuses values that do not fit their fields, each at its place. Values of fields that are gone are left alone. */
export async function checkCustomValues(db: Executor, values: CustomValues): Promise<void> {
  const fields = await loadCustomFields(db);
  const faults = fields.flatMap((field) => {
    const fault = customFieldFault(field, values[field.key] ?? null);
    return fault ? [{ field: `own.${field.key}`, message: fault }] : [];
  });
  const [first] = faults;
  if (first) throw new NettingError('invalid', first.message, { field: first.field, details: faults });
}
