import { dataOf } from './checks';
import type { Json, Rules } from './types';

const num = (value: Json | undefined): number => (typeof value === 'number' ? value : 0);

/** The marketplace's own label for so many grams, cents. */
export function labelFor(rules: Rules, grams: number): number {
  const labels = (Array.isArray(rules.fees.labels) ? rules.fees.labels : []).map(dataOf);
  return num((labels.find((label) => num(label.upToGrams) >= grams) ?? labels.at(-1) ?? {}).amount);
}

/** What a marketplace keeps of a sale: commission by steps and category with its least, and the payment fee; cents. */
export function feeFrom(rules: Rules, total: number, sale: { category?: string; charged?: boolean } = {}): number {
  const { commission, byCategory, payment, least } = rules.fees;
  const own = dataOf(byCategory)[sale.category ?? ''];
  let fee = 0;
  let from = 0;
  for (const [index, step] of (Array.isArray(commission) ? commission.map(dataOf) : []).entries()) {
    const upTo = typeof step.upTo === 'number' ? step.upTo : Number.POSITIVE_INFINITY;
    const part = Math.max(0, Math.min(total, upTo) - from);
    fee += Math.round((part * (index === 0 && typeof own === 'number' ? own : num(step.rate))) / 10_000);
    from = Math.min(upTo, Math.max(from, total));
  }
  if (sale.charged === false) fee = 0;
  else fee = Math.max(fee, num(least));
  return fee + Math.round((total * num(dataOf(payment).rate)) / 10_000) + num(dataOf(payment).fixed);
}

type Thing = { grams: number; sides: [number, number, number] };

/** What sending a piece from the marketplace's warehouse costs: the smallest size that holds it, else the largest; cents. */
export function handlingFor({ fees }: Rules, { grams, sides }: Thing): number {
  const sizes = (Array.isArray(fees.handling) ? fees.handling : []).map(dataOf);
  const fits = sizes.find((size) => num(size.upToGrams) >= grams && num(size.upToMm) >= Math.max(...sides));
  return num((fits ?? sizes.at(-1) ?? {}).amount);
}

/** What a month in the warehouse costs for so many pieces, by their volume; cents. */
export const storageFor = ({ fees }: Rules, { sides }: Thing, pieces: number): number =>
  Math.round(sides.reduce((volume, side) => volume * (side / 100), 1) * pieces * num(fees.storagePerLitreMonth));
