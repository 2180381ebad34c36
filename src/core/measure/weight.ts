import { readNumber } from './number';

/** Weights are kept in whole grams. Factors: international avoirdupois pound = 453.59237 g exactly, 16 oz a pound. */
export const gramsPerPound = 453.59237;
export const gramsPerOunce = gramsPerPound / 16;

const factors: Record<string, number> = {
  mg: 0.001,
  g: 1,
  gr: 1,
  gram: 1,
  grams: 1,
  gramme: 1,
  kg: 1000,
  kgs: 1000,
  kilo: 1000,
  kilos: 1000,
  kilogram: 1000,
  kilograms: 1000,
  lb: gramsPerPound,
  lbs: gramsPerPound,
  pound: gramsPerPound,
  pounds: gramsPerPound,
  oz: gramsPerOunce,
  ounce: gramsPerOunce,
  ounces: gramsPerOunce,
};

/**
 * Reads a weight with its unit, also in two parts and with fractions: `540 g`, `1.2 kg`, `1 lb 3 oz`, `0,5 kg`,
 * `1 1/2 lb`. A bare number is grams.
 * @returns whole grams, rounded up so that a parcel is never declared too light; null when it is not a weight.
 */
export function parseWeight(text: string): number | null {
  const clean = text.trim().toLowerCase();
  if (/^\d+$/.test(clean)) return Number(clean);
  const part = /(\d*\s?[½¼¾⅓⅔⅛]|\d+\/\d+|\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?)\s*([a-z]+)\.?(?:\s+and)?[\s,]*/gy;
  let grams = 0;
  let matched = 0;
  for (let hit = part.exec(clean); hit; hit = part.exec(clean)) {
    const factor = factors[hit[2] ?? ''];
    const number = readNumber(hit[1] ?? '');
    if (factor === undefined || number === null) return null;
    grams += number * factor;
    matched += hit[0].length;
  }
  if (matched !== clean.length || matched === 0) return null;
  return Math.ceil(grams - 1e-9);
}

/** Grams as pounds with `decimals` places, rounded up: never declared lighter than it is. */
export function toPounds(grams: number, decimals = 2): number {
  const unit = 10 ** decimals;
  return Math.ceil((grams / gramsPerPound) * unit - 1e-9) / unit;
}

/** Pounds (as a marketplace shows them) back to whole grams. */
export const fromPounds = (pounds: number): number => Math.round(pounds * gramsPerPound);

/** Grams as people read them: `840 g`, `1.25 kg`. */
export const formatWeight = (grams: number): string =>
  grams < 1000 ? `${grams} g` : `${(grams / 1000).toFixed(3).replace(/\.?0+$/, '')} kg`;
