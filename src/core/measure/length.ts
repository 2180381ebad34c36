import { readNumber } from './number';

/** Lengths are kept in whole millimetres. One inch is 25.4 mm exactly, a foot twelve of them. */
export const millimetresPerInch = 25.4;

const factors: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: millimetresPerInch,
  inch: millimetresPerInch,
  inches: millimetresPerInch,
  '"': millimetresPerInch,
  '″': millimetresPerInch,
  ft: 12 * millimetresPerInch,
  foot: 12 * millimetresPerInch,
  feet: 12 * millimetresPerInch,
  "'": 12 * millimetresPerInch,
};
const unit = 'mm|cm|m|inches|inch|in|foot|feet|ft|["″\']';

/** @returns millimetres, not yet rounded; null when it is not a length */
function readLength(clean: string, bare: string): number | null {
  const part = new RegExp(
    `(\\d*\\s?[½¼¾⅓⅔⅛]|\\d+/\\d+|\\d+(?:[.,]\\d+)?(?:\\s+\\d+/\\d+)?)\\s*(${unit})?\\.?\\s*`,
    'gy',
  );
  let total = 0;
  let matched = 0;
  let parts = 0;
  for (let hit = part.exec(clean); hit && matched < clean.length; hit = part.exec(clean)) {
    const number = readNumber(hit[1] ?? '');
    if (number === null || (parts > 0 && hit[2] === undefined)) return null;
    total += number * (factors[hit[2] ?? bare] ?? 1);
    matched += hit[0].length;
    parts++;
  }
  return matched === clean.length && parts > 0 ? total : null;
}

const up = (millimetres: number) => Math.ceil(millimetres - 1e-9);

/**
 * Reads a length with its unit: `195 mm`, `19,5 cm`, `7 1/2 in`, `7.5"`, `1 ft 2 in`. A bare number is millimetres.
 * @returns whole millimetres, rounded up; null when it is not a length.
 */
export function parseLength(text: string): number | null {
  const read = readLength(text.trim().toLowerCase(), 'mm');
  return read === null ? null : up(read);
}

/**
 * Reads three sides in one go: `30 x 20 x 10 cm`, `12 × 8½ × 4 in`, `300mm x 20cm x 4in`. A side without a unit has
 * that of the last one.
 * @returns whole millimetres, rounded up; null when it is not three lengths
 */
export function parseSides(text: string): [number, number, number] | null {
  const parts = text
    .trim()
    .toLowerCase()
    .split(/\s*[x×*]\s*/);
  if (parts.length !== 3) return null;
  const bare = new RegExp(`(${unit})\\.?$`).exec(parts[2] ?? '')?.[1] ?? 'mm';
  const [length, width, height] = parts.map((part) => readLength(part, bare));
  if (length == null || width == null || height == null) return null;
  return [up(length), up(width), up(height)];
}

/** Millimetres as inches with `decimals` places, rounded up: a parcel is never declared smaller than it is. */
export function toInches(millimetres: number, decimals = 1): number {
  const unit = 10 ** decimals;
  return Math.ceil((millimetres / millimetresPerInch) * unit - 1e-9) / unit;
}

/** Millimetres as centimetres with one place, rounded up. */
export const toCentimetres = (millimetres: number): number => Math.ceil(millimetres) / 10;

/** Millimetres of a length in inches, rounded. */
export const fromInches = (inches: number): number => Math.round(inches * 25.4);

/** Millimetres of a length in centimetres, rounded. */
export const fromCentimetres = (centimetres: number): number => Math.round(centimetres * 10);
