import { type Checks, dataOf, lengthOf, listOf, numberOf, textOf } from './checks';
import type { Data, Json, Listing, Market, Rules } from './types';

export type Variant = { values: string[]; number: string; stock: number; cents: number | null };

/** The combinations of a listing, by the field in which this marketplace has them. */
export function variantsOf(market: Pick<Market, 'variantsField'>, data: Data): Variant[] {
  if (!market.variantsField) return [];
  const rows = dataOf(data[market.variantsField]).rows;
  if (!Array.isArray(rows)) return [];
  return rows.map(dataOf).map((row) => ({
    values: listOf(row.values),
    number: textOf(row.number),
    stock: numberOf(row.stock) || 0,
    cents: typeof row.cents === 'number' ? row.cents : null,
  }));
}

/** Axes and combinations within the limits, every combination once and made of the axes' values. */
export function checkVariants(
  checks: Checks,
  pointer: string,
  value: Json | undefined,
  rules: Rules,
  pictures: readonly string[] = [],
): void {
  if (value === undefined || value === null) return;
  const { axes: given, rows: lines } = dataOf(value);
  const axes = Array.isArray(given) ? given.map(dataOf) : [];
  const rows = Array.isArray(lines) ? lines.map(dataOf) : [];
  const mostAxes = rules.limits.axes ?? 0;
  const most = rules.limits.combinations ?? Number.POSITIVE_INFINITY;
  if (axes.length === 0 || rows.length === 0) checks.say(pointer, 'Variations need axes and combinations.');
  if (axes.length > mostAxes) checks.say(`${pointer}/axes`, `At most ${mostAxes} axes.`);
  if (rows.length > most) checks.say(`${pointer}/rows`, `At most ${most} combinations.`);
  for (const [index, axis] of axes.entries())
    if (textOf(axis.name) === '' || lengthOf(textOf(axis.name)) > 40)
      checks.say(`${pointer}/axes/${index}`, 'An axis needs a name of at most 40 characters.');
  for (const [index, axis] of axes.entries())
    for (const [named, picture] of Object.entries(dataOf(axis.pictures))) {
      const at = `${pointer}/axes/${index}/pictures/${named}`;
      if (!rules.limits.valuePictures) checks.say(at, 'A value has no picture of its own here.');
      else if (!listOf(axis.values).includes(named)) checks.say(at, 'No value of this axis is called so.');
      else if (!pictures.includes(textOf(picture))) checks.say(at, 'It must be one of the pictures of the listing.');
    }
  const seen = new Set<string>();
  for (const [index, row] of rows.entries()) {
    const values = listOf(row.values);
    const at = `${pointer}/rows/${index}`;
    if (values.length !== axes.length || values.some((one, axis) => !listOf(axes[axis]?.values).includes(one)))
      checks.say(at, 'A combination must name one value of every axis.');
    const key = JSON.stringify(values);
    if (seen.has(key)) checks.say(at, 'A combination stands twice.');
    seen.add(key);
    checks.range(`${at}/stock`, row.stock, 0, 1_000_000, 'The stock of a combination');
    if (row.cents !== null && row.cents !== undefined)
      checks.range(`${at}/cents`, row.cents, 1, 100_000_000, 'The price of a combination in cents');
  }
}

/** The combination that a buyer means: by its number or its values; the first that is there when nothing is said. */
export const chosenVariant = (variants: Variant[], wanted: string, quantity: number): Variant | undefined =>
  wanted
    ? variants.find((one) => one.number === wanted || one.values.join(' / ') === wanted)
    : variants.find((one) => one.stock >= quantity);

/** A listing's fields after some of one combination were sold. */
export function withVariantSold(
  market: Market,
  { data }: Pick<Listing, 'data'>,
  sold: Variant,
  quantity: number,
): Data {
  const field = market.variantsField;
  if (!field) return data;
  const whole = dataOf(data[field]);
  const rows = Array.isArray(whole.rows) ? whole.rows.map(dataOf) : [];
  const key = JSON.stringify(sold.values);
  return {
    ...data,
    [field]: {
      ...whole,
      rows: rows.map((row) =>
        JSON.stringify(listOf(row.values)) === key ? { ...row, stock: (numberOf(row.stock) || 0) - quantity } : row,
      ),
    },
  };
}
