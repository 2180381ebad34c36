import { RE2JS } from 're2js';

/** A picture that was dropped, with what it says of where it belongs. */
export type DroppedPhoto = {
  id: number;
  /** Its name with its folders, as they were dropped. */
  path: string;
  /** When it was taken, in milliseconds; null where it does not say. */
  takenAt: number | null;
  /** Barcodes that are seen in it, as they read. */
  codes: readonly string[];
};

/** Where a picture goes; `sheet`: it only says where the next ones go. `place` orders those of one item. */
export type Tie = { id: number; item: number | null; as: 'photo' | 'sheet'; place: number; said: string | null };

/** Items by what names them, in the form of `keyOf`. */
export type ItemKeys = ReadonlyMap<string, number>;

/** Stock numbers are the same in any case, barcodes with or without zeros before them. */
export const keyOf = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/^0+(?=\d{7,}$)/, '');

const byName = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
const fileOf = (path: string): string => path.split('/').at(-1) ?? path;
const bare = (path: string): string => fileOf(path).replace(/\.[a-z0-9]{2,5}$/i, '');

/** Beginnings of a name that may be a stock number: up to each sign that parts it, and where letters follow digits. */
function beginnings(name: string): string[] {
  const ends = new Set([name.length]);
  for (let at = 1; at < name.length; at++) {
    const [before = '', here = ''] = [name[at - 1], name[at]];
    if (/[^\p{L}\p{N}]/u.test(here) || (/\p{N}/u.test(before) && /\p{L}/u.test(here))) ends.add(at);
  }
  return [...ends].sort((a, b) => b - a).map((end) => name.slice(0, end));
}

type Said = { key: string; rest: string };

/** Everything in a name that may name an item, the most telling first, each with what is left of the name. */
export function namesIn(path: string): Said[] {
  const name = bare(path);
  const folders = path.split('/').slice(0, -1).reverse();
  const digits = [...name.matchAll(/(?<!\d)\d{8,14}(?!\d)/g)].map(([code]) => ({
    key: keyOf(code),
    rest: name.replace(code, ''),
  }));
  return [
    ...beginnings(name).map((key) => ({ key: keyOf(key), rest: name.slice(key.length) })),
    ...digits,
    ...folders.flatMap((folder) => beginnings(folder).map((key) => ({ key: keyOf(key), rest: name }))),
  ].filter((one) => one.key.length > 1);
}

/**
 * A pattern of names such as `IMG * {sku} ({n})`: `{sku}` is what names the item, `{n}` its place, `*` anything.
 * @returns a sentence where it is none
 */
export function readNamePattern(pattern: string): { match(path: string): Said | null } | { problem: string } {
  const text = pattern.trim();
  if (!text.includes('{sku}')) return { problem: 'Write {sku} where the stock number or the barcode stands' };
  if (text.split('{sku}').length > 2 || text.split('{n}').length > 2)
    return { problem: 'Name {sku} and {n} once each' };
  const odd = /\{(?!sku\}|n\})/.exec(text);
  if (odd) return { problem: 'Only {sku}, {n} and * stand for something' };
  const source = text
    .split(/(\{sku\}|\{n\}|\*)/)
    .map((part) =>
      part === '{sku}'
        ? '(?<sku>[^/]{1,40}?)'
        : part === '{n}'
          ? '(?<n>\\d{1,4})'
          : part === '*'
            ? '[^/]{0,80}?'
            : part.replace(/[.+?^${}()|[\]\\/]/g, '\\$&').replace(/\s+/g, '\\s+'),
    )
    .join('');
  // Linear in the name's length, whatever the pattern is.
  const form = RE2JS.compile(`^${source}$`, RE2JS.CASE_INSENSITIVE);
  return {
    match(path) {
      const matcher = form.matcher(bare(path).slice(0, 300));
      if (!matcher.matches()) return null;
      const sku = matcher.group('sku') ?? '';
      return { key: keyOf(sku), rest: text.includes('{n}') ? (matcher.group('n') ?? '') : '' };
    },
  };
}

/** What each name says by a pattern, or by the usual ways. */
export function saidBy(path: string, pattern: string): Said[] {
  if (!pattern.trim()) return namesIn(path);
  const read = readNamePattern(pattern);
  const said = 'match' in read ? read.match(path) : null;
  return said ? [said] : [];
}

/** The first number in what is left of a name; without one it comes first. */
const numberIn = (rest: string): number => Number(/\d{1,6}/.exec(rest)?.[0] ?? -1);

/** Those of one item in their order: by the number behind what names it, then by name. */
function inOrder(ties: { photo: DroppedPhoto; item: number; rest: string }[]): Map<number, number> {
  const sorted = [...ties].sort(
    (a, b) =>
      numberIn(a.rest) - numberIn(b.rest) ||
      byName.compare(a.rest, b.rest) ||
      byName.compare(a.photo.path, b.photo.path),
  );
  return new Map(sorted.map(({ photo }, at) => [photo.id, at]));
}

/** By what their names say: a stock number with any ending, a barcode, the folder they lie in, or a pattern of one's own. */
export function tieByName(photos: readonly DroppedPhoto[], keys: ItemKeys, pattern = ''): Tie[] {
  const found = photos.map((photo) => {
    const said = saidBy(photo.path, pattern);
    const hit = said.find(({ key }) => keys.has(key));
    return { photo, item: hit ? (keys.get(hit.key) ?? null) : null, rest: hit?.rest ?? '', first: said[0]?.key ?? '' };
  });
  const groups = new Map<number, { photo: DroppedPhoto; item: number; rest: string }[]>();
  for (const { photo, item, rest } of found) {
    if (item !== null) groups.set(item, [...(groups.get(item) ?? []), { photo, item, rest }]);
  }
  const places = new Map([...groups.values()].flatMap((ties) => [...inOrder(ties)]));
  return found.map(({ photo, item, first }, at) => ({
    id: photo.id,
    item,
    as: 'photo',
    place: places.get(photo.id) ?? at,
    said: item !== null ? null : first ? `No item is called ${first}` : 'Its name does not follow the pattern',
  }));
}

/** As they were taken; those that do not say when, by their names among the others. */
export const asTaken = (photos: readonly DroppedPhoto[]): DroppedPhoto[] =>
  photos.every((one) => one.takenAt !== null)
    ? [...photos].sort((a, b) => Number(a.takenAt) - Number(b.takenAt) || byName.compare(a.path, b.path))
    : [...photos].sort((a, b) => byName.compare(a.path, b.path));

/** By a barcode that is seen in a picture: everything until the next one belongs to its item. */
export function tieByBarcode(photos: readonly DroppedPhoto[], keys: ItemKeys): Tie[] {
  let item: number | null = null;
  let said: string | null = 'No barcode was seen before it';
  return asTaken(photos).map((photo, place): Tie => {
    const known = photo.codes.map((code) => keys.get(keyOf(code))).find((one) => one !== undefined);
    // The same barcode again is the thing's own, on its box or its label: a photo like others.
    if (known !== undefined && known !== item) {
      item = known;
      said = null;
      return { id: photo.id, item, as: 'sheet', place, said };
    }
    const [code] = photo.codes;
    if (known === undefined && code !== undefined) {
      item = null;
      said = `${code} is no item’s barcode or stock number`;
      return { id: photo.id, item, as: 'photo', place, said };
    }
    return { id: photo.id, item, as: 'photo', place, said };
  });
}

/** By when they were taken: a pause of so many seconds begins the next item, in the order of the items that wait. */
export function tieByTime(photos: readonly DroppedPhoto[], items: readonly number[], gapSeconds: number): Tie[] {
  let group = -1;
  let last = Number.NEGATIVE_INFINITY;
  return asTaken(photos.filter((one) => one.takenAt !== null))
    .map((photo, place): Tie => {
      if (Number(photo.takenAt) - last > gapSeconds * 1_000) group++;
      last = Number(photo.takenAt);
      const item = items[group] ?? null;
      return {
        id: photo.id,
        item,
        as: 'photo',
        place,
        said: item === null ? 'There are more pauses than items without photos' : null,
      };
    })
    .concat(
      photos
        .filter((one) => one.takenAt === null)
        .map(
          (photo, place): Tie => ({
            id: photo.id,
            item: null,
            as: 'photo',
            place,
            said: 'It does not say when it was taken',
          }),
        ),
    );
}
