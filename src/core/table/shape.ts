import type { Column } from './column';
import { isNumeric } from './column';
import { lostFraction } from './repair';

/** How numbers and dates are written in one column of a file. */
export type Shape = { decimal: '.' | ','; dayFirst: boolean; hasLostFractions: boolean };

export const plainShape: Shape = { decimal: '.', dayFirst: true, hasLostFractions: false };

/** The sign before the fraction: of both signs the later one; of one alone, where less or more than three digits follow. */
function decimalOf(values: readonly string[]): '.' | ',' {
  let commas = 0;
  let points = 0;
  for (const value of values) {
    const comma = value.lastIndexOf(',');
    const point = value.lastIndexOf('.');
    if (comma >= 0 && point >= 0) comma > point ? commas++ : points++;
    else if (comma >= 0 && !/,\d{3}(\D|$)/.test(value)) commas++;
    else if (point >= 0 && !/\.\d{3}(\D|$)/.test(value)) points++;
  }
  return commas > points ? ',' : '.';
}

/** Days before months, unless some second number can be a day only. */
function dayFirstOf(values: readonly string[]): boolean {
  const pairs = values.flatMap((value) => {
    const hit = /^(\d{1,2})[./-](\d{1,2})[./-]\d{4}$/.exec(value.trim());
    return hit ? [[Number(hit[1]), Number(hit[2])] as const] : [];
  });
  if (pairs.some(([first]) => first > 12)) return true;
  if (pairs.some(([, second]) => second > 12)) return false;
  return !values.some((value) => /^\d{1,2}\/\d{1,2}\/\d{4}$/.test(value.trim()));
}

/**
 * How a column's values are written, seen from some of them.
 * @param pairs a value with what was written out for it, where that is known
 */
export function shapeOf(column: Column, pairs: readonly { text: string; exported?: string }[]): Shape {
  const values = pairs.map((one) => one.text);
  const broken = pairs.filter(({ text, exported }) => lostFraction(text.trim(), exported)).length;
  const whole = pairs.filter(({ text, exported }) => exported !== undefined && text === exported).length;
  return {
    decimal: isNumeric(column) ? decimalOf(values) : '.',
    dayFirst: dayFirstOf(values),
    hasLostFractions: broken >= 2 && broken > whole,
  };
}
