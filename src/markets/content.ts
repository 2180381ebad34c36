import type { Json } from '../core/json';
import type { Content } from '../core/listing';

/** Reading single values out of content, with nothing assumed about their type. */
export const text = (content: Content, field: string): string => {
  const value = content[field];
  return typeof value === 'string' ? value : '';
};
export const number = (content: Content, field: string): number => {
  const value = content[field];
  return typeof value === 'number' ? value : 0;
};
export const list = (content: Content, field: string): string[] => {
  const value = content[field];
  return Array.isArray(value) ? value.filter((one) => typeof one === 'string') : [];
};
export const extra = (content: Content, id: string): Json => content[`extra.${id}`] ?? null;

/** The category's attributes, by the marketplace's own ids. */
export const attributes = (content: Content): Record<string, Json> =>
  Object.fromEntries(
    Object.entries(content)
      .filter(([field]) => field.startsWith('attr.'))
      .map(([field, value]) => [field.slice(5), value]),
  );

export const attributesBack = (traits: unknown): Content =>
  typeof traits === 'object' && traits !== null
    ? Object.fromEntries(
        Object.entries(traits)
          .filter((entry): entry is [string, string] => typeof entry[1] === 'string')
          .map(([id, value]) => [`attr.${id}`, value]),
      )
    : {};

/** Only values that say something, so that absent and empty are the same. */
export const said = (content: Record<string, unknown>): Content =>
  Object.fromEntries(
    Object.entries(content).filter(
      (entry): entry is [string, Json] =>
        entry[1] !== undefined &&
        entry[1] !== null &&
        entry[1] !== '' &&
        !(Array.isArray(entry[1]) && entry[1].length === 0),
    ),
  );

/** Three sides in millimetres, of a list in their unit; null where it is none. */
export const sidesFrom = (wire: unknown, toMillimetres: (side: number) => number): number[] | null =>
  Array.isArray(wire) && wire.length === 3 && wire.every((side) => typeof side === 'number' && side > 0)
    ? wire.map((side: number) => toMillimetres(side))
    : null;

/** The amount, or null: a price that is not there is not a price of nothing. */
export const amount = (content: Content, field: string): number | null => {
  const value = content[field];
  return typeof value === 'number' ? value : null;
};

/** Our fields → their top-level fields, and back from the pointer of an error to ours. */
export type WireFields = ((fields: string[]) => string[]) & { back(pointer: string): string | null };

/**
 * Our field → places in theirs, from a table of paths such as `parcel/pounds`: whole top-level fields are sent, the
 * path finds the way back from an error. Attributes all go to one.
 */
export function fieldsFrom(table: Record<string, string[]>, attributesField: string): WireFields {
  const top = (path: string) => path.split('/')[0] ?? path;
  const there = (fields: string[]): string[] => [
    ...new Set(
      fields.flatMap((field) => (field.startsWith('attr.') ? [attributesField] : (table[field] ?? []).map(top))),
    ),
  ];
  const back = (pointer: string): string | null => {
    const path = pointer.replace(/^\//, '');
    const [first = '', second] = path.split('/');
    if (first === attributesField && second) return `attr.${second}`;
    const places = Object.entries(table).flatMap(([field, theirs]) => theirs.map((at) => ({ field, at })));
    const [near] = places
      .filter(({ at }) => path === at || path.startsWith(`${at}/`))
      .sort((one, other) => other.at.length - one.at.length);
    return (near ?? places.find(({ at }) => top(at) === first))?.field ?? null;
  };
  return Object.assign(there, { back });
}
