import type { Json } from '../../json';
import { share } from '../../measure/money';
import { writeTier } from '../../price/tiers';
import type { ExtraRule } from '../../rules/rules';

const percentOff = /^[-−]\s*(\d{1,2}(?:[.,]\d{1,2})?)\s*%$/;

/** Basis points that a text such as `-10 %` takes off; null for any other text. */
export function readPercentOff(text: string): number | null {
  const found = percentOff.exec(text.trim());
  return found ? Math.round(Number((found[1] ?? '').replace(',', '.')) * 100) : null;
}

const less = (price: number, basisPoints: number): number => price - share(price, basisPoints);

/**
 * What is said by account or template relative to the price there, as amounts: `-10 %` of a sale price, `3: -5 %` of a
 * quantity tier. Everything else stands as it is.
 */
export function resolveRelative(extra: ExtraRule, value: Json, price: Json | undefined, currency: string): Json {
  if (typeof price !== 'number') return value;
  if (extra.type === 'money' && typeof value === 'string') {
    const off = readPercentOff(value);
    return off === null ? value : less(price, off);
  }
  if (extra.form !== 'tiers') return value;
  const lines = Array.isArray(value) ? value : typeof value === 'string' ? value.split(';') : null;
  return (
    lines?.map((line) => {
      const [pieces = '', rest = ''] = String(line).split(':');
      const off = readPercentOff(rest);
      return off === null ? line : writeTier({ pieces: Number(pieces), price: less(price, off) }, currency);
    }) ?? value
  );
}
