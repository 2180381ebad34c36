import { askedFieldIds, itemFieldEntries } from '../../field/item-fields';
import type { Item } from '../../item/item';
import { ownValue } from '../../json';
import { type CompiledRules, nameKey } from '../../rules/compiled';
import type { AttributeRule } from '../../rules/rules';
import { namesLike, type Synonyms, valuesLike } from './synonyms';

export type MappedAttribute = { value: string; exact: boolean; how: 'same' | 'like' | 'learned' };

const lookups = new WeakMap<Record<string, string>, Map<string, string>>();

function byKey(attributes: Record<string, string>): Map<string, string> {
  let map = lookups.get(attributes);
  if (!map) {
    map = new Map(Object.entries(attributes).map(([name, value]) => [nameKey(name), value]));
    lookups.set(attributes, map);
  }
  return map;
}

/** Fields of the item that marketplaces may ask for as an attribute, by the key of their name. */
const asked = new Map(askedFieldIds.map((id) => [nameKey(itemFieldEntries[id].label), id]));

function askedOf(item: Item, key: string): string {
  const id = asked.get(key);
  const value = id === undefined ? '' : item[id];
  return typeof value === 'string' ? value : '';
}

const likes = new Map<string, string[]>();
const like = (label: string): string[] => {
  let names = likes.get(label);
  if (!names) {
    names = namesLike(label);
    likes.set(label, names);
  }
  return names;
};

function said(attribute: AttributeRule, item: Item, synonyms: Synonyms): { value: string; mapping: boolean } | null {
  const own = byKey(item.attributes);
  const taught = ownValue(synonyms.names, attribute.id);
  const fromTaught = taught === undefined ? undefined : own.get(nameKey(taught));
  if (fromTaught) return { value: fromTaught, mapping: true };
  for (const key of like(attribute.label)) {
    const value = own.get(key) ?? askedOf(item, key);
    if (value) return { value, mapping: false };
  }
  return null;
}

/**
 * The item's value for a marketplace's attribute: by the name a person matched, the same name, or a name that means the
 * same; then brought to the marketplace's list: as a person matched it, in its spelling, by a word that means the same,
 * or as the only listed value that holds it whole. `exact` is false when the list does not hold the value.
 */
export function mapAttribute(
  compiled: CompiledRules,
  attribute: AttributeRule,
  item: Item,
  synonyms: Synonyms,
): MappedAttribute | null {
  const found = said(attribute, item, synonyms);
  if (!found) return null;
  const { value } = found;
  const how = found.mapping ? 'learned' : 'same';
  if (!attribute.values) return { value, exact: true, how };
  const key = nameKey(value);
  const taught = ownValue(ownValue(synonyms.values, attribute.id) ?? {}, key);
  if (taught !== undefined && attribute.values.includes(taught)) return { value: taught, exact: true, how: 'learned' };
  const listed = compiled.valueByKey(attribute);
  const same = listed.get(key);
  if (same) return { value: same, exact: true, how };
  for (const other of valuesLike(value)) {
    const meant = listed.get(other);
    if (meant) return { value: meant, exact: true, how: 'like' };
  }
  if (key.length > 1) {
    const holding = [...listed].filter(([one]) => one.includes(key));
    const [only] = holding;
    if (holding.length === 1 && only) return { value: only[1], exact: true, how: 'like' };
  }
  return { value, exact: false, how };
}
