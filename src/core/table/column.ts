import type { Field } from '../field/field';

/** What a column of a file is of. */
export type Place =
  | { of: 'item'; field: string }
  /** Written for one account alone; it holds what the listing gets there. */
  | { of: 'listing'; account: number; field: string }
  /** What names the row: the item's number with us, its combination in words, the combination's key. */
  | { of: 'row'; what: 'item' | 'variation' | 'key' }
  /** The marketplace's own number of the listing. */
  | { of: 'remote'; account: number; what: 'number' | 'link' | 'state' };

export type Column = {
  /** `title`, `attributes.Colour`, `own.shelf`, `on.12.title`, `row.item`, `on.12.remote.number`. */
  id: string;
  /** `Title`, and of an account `Title · Its name`. */
  label: string;
  place: Place;
  /** How its values are read and shown; null for what cannot be written by a file. */
  field: Field | null;
  /** Currency of its amounts. */
  currency: string;
};

/** What a column is called; of an account with the account's name behind the field's. */
export const columnLabel = (label: string, account?: string): string =>
  account === undefined ? label : `${label} · ${account}`;

/** A column's id as the place that it names; null when it names none. */
export function placeOf(id: string): Place | null {
  if (id === 'row.item' || id === 'row.variation' || id === 'row.key')
    return { of: 'row', what: id.slice('row.'.length) as 'item' | 'variation' | 'key' }; // one of the three just tested
  const there = /^on\.(\d{1,9})\.(.+)$/.exec(id);
  if (!there?.[1] || !there[2]) return /^on\./.test(id) ? null : { of: 'item', field: id };
  const account = Number(there[1]);
  const remote = /^remote\.(number|link|state)$/.exec(there[2]);
  if (remote?.[1]) return { of: 'remote', account, what: remote[1] as 'number' | 'link' | 'state' }; // by the pattern
  return there[2].startsWith('remote.') ? null : { of: 'listing', account, field: there[2] };
}

/** Whether what stands in it is a number in a spreadsheet, too. */
export const isNumeric = ({ field }: Column): boolean =>
  field !== null && ['money', 'whole', 'number'].includes(field.kind.is);

/** Whether it names a thing by letters and digits that a spreadsheet must not take for a number. */
export const isIdentity = ({ field, place }: Column): boolean =>
  place.of === 'remote' || field?.traits.mono === true || field?.traits.identifies === true;
