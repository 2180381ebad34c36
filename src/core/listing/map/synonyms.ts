import { nameKey } from '../../rules/compiled';

/**
 * What a person has matched on one marketplace: their attribute id → the item's attribute name, and their attribute
 * id → the item's value (by its name key) → their value.
 */
export type Synonyms = {
  names: Record<string, string>;
  values: Record<string, Record<string, string>>;
};

/** Names that mean the same property in the trade. */
const nameGroups = [
  ['film format', 'format', 'film size', 'film type size'],
  ['lens mount', 'mount', 'bayonet'],
  ['colour', 'main colour', 'color', 'shade'],
  ['material', 'made of', 'main material'],
  ['decade', 'made in the', 'era', 'period'],
  ['focal length', 'focal length in mm'],
  ['largest aperture', 'aperture', 'maximum aperture', 'speed of lens'],
  ['filter thread', 'thread', 'filter size'],
  ['film speed', 'iso', 'sensitivity'],
  ['exposures', 'frames', 'pictures per roll'],
  ['author', 'written by', 'writer'],
  ['language', 'written in'],
  ['binding', 'cover', 'format of book'],
  ['contents', 'in the box', 'parts', 'package contents'],
  ['width', 'width in cm', 'breadth'],
  ['height', 'height in cm'],
  ['length', 'total length'],
  ['country of origin', 'origin', 'made in', 'country'],
  ['subject', 'motif', 'shows'],
  ['size', 'clothing size'],
  ['for whom', 'worn by', 'for'],
  ['model', 'model name'],
  ['year', 'year made'],
  ['tested', 'tried out', 'works'],
];

const groupOf = new Map<string, string[]>();
for (const group of nameGroups) {
  const keys = group.map(nameKey);
  for (const key of keys) groupOf.set(key, [...(groupOf.get(key) ?? []), ...keys]);
}

/** Keys under which an attribute may stand in the item, the exact name first. */
export const namesLike = (label: string): string[] => {
  const key = nameKey(label);
  return [key, ...(groupOf.get(key) ?? []).filter((one) => one !== key)];
};

/** Values that mean the same in the trade. */
const valueGroups = [
  ['multicoloured', 'mixed', 'many', 'several colours'],
  ['grey', 'gray'],
  ['natural', 'brown'],
  ['paperback', 'softcover'],
  ['hardback', 'hardcover'],
  ['leaflet', 'booklet'],
  ['before 1940', '1930s', '1920s', '1910s', '1900s'],
  ['120', 'medium format', '6x6', '6x9'],
  ['35 mm', '135', 'small picture'],
  ['yes', 'true', 'tested'],
  ['no', 'false', 'untested'],
];
const valueGroupOf = new Map<string, string[]>();
for (const group of valueGroups) {
  const keys = group.map(nameKey);
  for (const key of keys) valueGroupOf.set(key, keys);
}
export const valuesLike = (value: string): string[] => valueGroupOf.get(nameKey(value)) ?? [];
