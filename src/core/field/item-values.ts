import type { Item } from '../item/item';
import { type Json, ownValue } from '../json';
import { attributeField } from './catalogue';

/** The words that photos of flaws show, by the photo's hash. */
const flawsOf = (item: Item): Record<string, string> =>
  Object.fromEntries(item.photos.flatMap(({ hash, flaw }) => (flaw ? [[hash, flaw]] : [])));

/** An item's value of a field of the catalogue. Attributes nobody wrote are empty, own fields null. */
export function fieldValue(item: Item, field: string): Json {
  if (field.startsWith('attributes.')) return ownValue(item.attributes, field.slice('attributes.'.length)) ?? '';
  if (field.startsWith('own.')) return ownValue(item.own, field.slice('own.'.length)) ?? null;
  if (field === 'photos') return item.photos.map((photo) => photo.hash);
  if (field === 'flaws') return flawsOf(item);
  return (ownValue(item as unknown as Record<string, Json>, field) ?? null) as Json; // an item holds JSON values only
}

const without = <T>(record: Record<string, T>, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record).filter(([name]) => name !== key));

/** The item with one field changed; photos are looked up among `known`, besides the item's own. */
export function withFieldValue(item: Item, field: string, value: Json, known: Item['photos'] = []): Item {
  if (field.startsWith('attributes.')) {
    const name = field.slice('attributes.'.length);
    const rest = without(item.attributes, name);
    return {
      ...item,
      attributes: value === attributeField(name).empty ? rest : { ...item.attributes, [name]: String(value) },
    };
  }
  if (field.startsWith('own.')) {
    const key = field.slice('own.'.length);
    const rest = without(item.own, key);
    return { ...item, own: value === null ? rest : { ...item.own, [key]: value } };
  }
  if (field === 'photos') {
    const all = [...item.photos, ...known];
    const hashes = Array.isArray(value) ? value : [];
    return { ...item, photos: hashes.flatMap((hash) => all.find((one) => one.hash === hash) ?? []) };
  }
  if (field === 'flaws') {
    const words = value as Record<string, string>; // checked by the field's own schema
    const photos = item.photos.map(({ flaw: _old, ...photo }) => {
      const said = ownValue(words, photo.hash);
      return said ? { ...photo, flaw: said } : photo;
    });
    return { ...item, photos };
  }
  return { ...item, [field]: value };
}
