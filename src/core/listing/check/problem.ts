import type { Issue, ListingValue, Mend } from '../fields';

export const master = (field: string, label: string): Mend => ({ kind: 'edit-master', field, label });
export const here = (field: string, label: string): Mend => ({ kind: 'edit-own', field, label });

export const problem = (code: string, field: string, message: string, mend: Mend): Issue => ({
  code,
  field,
  message,
  blocks: true,
  mend,
});

/** A value written here is mended here; an inherited one in the item. */
export const mendFor = (value: ListingValue, field: string, label: string): Mend =>
  value.origin === 'own' ? here(value.field, label) : master(field, label);
