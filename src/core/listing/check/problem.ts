import type { Fix, Issue, ListingValue } from '../fields';

export const master = (field: string, label: string): Fix => ({ kind: 'edit-master', field, label });
export const here = (field: string, label: string): Fix => ({ kind: 'edit-override', field, label });

export const problem = (code: string, field: string, message: string, fix: Fix): Issue => ({
  code,
  field,
  message,
  blocks: true,
  fix,
});

/** A value written here is mended here; an inherited one in the item. */
export const fixFor = (value: ListingValue, field: string, label: string): Fix =>
  value.origin === 'override' ? here(value.field, label) : master(field, label);
