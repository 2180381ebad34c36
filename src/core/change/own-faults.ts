import type { Catalogue } from '../field/catalogue';
import type { Json } from '../json';

/** What is wrong with values of one's own fields, each at its place; those of fields that are gone are left alone. */
export function ownFaults(own: Json, catalogue: Catalogue): { field: string; message: string }[] {
  if (typeof own !== 'object' || own === null || Array.isArray(own)) return [];
  return Object.entries(own).flatMap(([key, value]) => {
    const checked = catalogue.item(`own.${key}`)?.schema.safeParse(value);
    return checked && !checked.success
      ? [{ field: `own.${key}`, message: checked.error.issues[0]?.message ?? 'This cannot stand here' }]
      : [];
  });
}
