import { z } from 'zod';

/** What a thing may differ in: colour, length; each with its values in the order in which they are shown. */
export const axisSchema = z
  .object({
    name: z.string().trim().min(1, 'Name what differs').max(40),
    values: z.array(z.string().trim().min(1).max(60)).max(100),
    /** Value → the photo that shows it, by content hash. */
    photos: z.record(z.string().max(60), z.string().regex(/^[0-9a-f]{64}$/)).optional(),
  })
  .strict();
export type Axis = z.infer<typeof axisSchema>;

const minor = z.number().int().min(-100_000_000_00).max(100_000_000_00);

/** One combination. `price` is an own price or a difference from the item's, in minor units; null follows the item. */
export const variationSchema = z
  .object({
    values: z.array(z.string().max(60)).max(3),
    on: z.boolean(),
    sku: z
      .string()
      .regex(/^([A-Za-z0-9][A-Za-z0-9.\-/]{0,39})?$/, 'Use 1 to 40 letters, digits, dots, dashes or slashes'),
    /** Below zero when more was sold than was there. */
    quantity: z.number().int().min(-1_000_000).max(1_000_000),
    price: z
      .object({ kind: z.enum(['own', 'difference']), amount: minor })
      .strict()
      .nullable(),
    barcode: z.string().max(20),
    /** Its own for ever, whatever its values are called; the stock ledger names it. Empty until it is stored. */
    key: z
      .string()
      .regex(/^[a-z0-9]{0,16}$/)
      .default(''),
  })
  .strict();
export type Variation = z.infer<typeof variationSchema>;

export const mostAxes = 3;
export const mostCombinations = 1_000;

/** What tells a combination from the others; values may hold any sign. */
export const combinationKey = (values: readonly string[]): string => JSON.stringify(values);

/** A combination as it is called in the ledger and on a sale. */
export const combinationWords = (values: readonly string[]): string => values.join(', ').slice(0, 200);

/** Every combination of the axes' values, the last axis changing fastest. No axes: none. */
export function combinations(axes: readonly Axis[]): string[][] {
  if (axes.length === 0) return [];
  return axes.reduce<string[][]>(
    (rows, axis) => rows.flatMap((row) => axis.values.map((value) => [...row, value])),
    [[]],
  );
}

export const combinationCount = (axes: readonly Axis[]): number =>
  axes.length === 0 ? 0 : axes.reduce((count, axis) => count * axis.values.length, 1);

const fresh = (values: string[]): Variation => ({
  values,
  on: true,
  sku: '',
  quantity: 0,
  price: null,
  barcode: '',
  key: '',
});

/**
 * The table of combinations after the axes were changed: what was written for a combination stays with it, new ones
 * begin empty and switched on. When an axis was added or taken away, a combination keeps what its longest beginning had,
 * but numbers (stock number, barcode, quantity) stay with one row only, so that nothing is counted twice.
 */
export function regenerate(axes: readonly Axis[], before: readonly Variation[]): Variation[] {
  const known = new Map(before.map((row) => [combinationKey(row.values), row]));
  const taken = new Set<string>();
  return combinations(axes).map((values) => {
    const same = known.get(combinationKey(values));
    if (same) return same;
    const kin = before.find((row) => row.values.length !== values.length && isBeginning(row.values, values));
    if (!kin) return fresh(values);
    const key = combinationKey(kin.values);
    const first = !taken.has(key);
    taken.add(key);
    return first ? { ...kin, values } : { ...fresh(values), on: kin.on, price: kin.price };
  });
}

/**
 * An axis value written otherwise: every combination of it keeps its stock, price and numbers, and the value its photo.
 * @returns null when the axis has a value of that name already, or none of the old one
 */
export function withRenamedValue(
  axes: readonly Axis[],
  rows: readonly Variation[],
  axis: number,
  from: string,
  to: string,
): { axes: Axis[]; rows: Variation[] } | null {
  const there = axes[axis];
  const clean = to.trim();
  const isTaken = there?.values.some((one) => one !== from && one.toLowerCase() === clean.toLowerCase());
  if (!there?.values.includes(from) || clean === '' || isTaken) return null;
  const renamed = (value: string) => (value === from ? clean : value);
  const photos =
    there.photos && Object.fromEntries(Object.entries(there.photos).map(([value, hash]) => [renamed(value), hash]));
  return {
    axes: axes.map((one, at) =>
      at === axis ? { ...one, values: one.values.map(renamed), ...(photos ? { photos } : {}) } : one,
    ),
    rows: rows.map((row) => ({
      ...row,
      values: row.values.map((value, at) => (at === axis ? renamed(value) : value)),
    })),
  };
}

const isBeginning = (one: readonly string[], other: readonly string[]): boolean => {
  const [short, long] = one.length < other.length ? [one, other] : [other, one];
  return short.length > 0 && short.every((value, index) => value === long[index]);
};

/** Units of all combinations that are switched on: what the item as a whole has to sell. */
export const unitsOf = (rows: readonly Variation[]): number =>
  rows.reduce((sum, row) => sum + (row.on ? row.quantity : 0), 0);

/** A combination's price in minor units: its own, or the item's with the difference; never below zero. Null without a price. */
export function variationPrice(itemPrice: number | null, row: Pick<Variation, 'price'>): number | null {
  if (row.price?.kind === 'own') return row.price.amount;
  if (itemPrice === null) return null;
  return Math.max(0, itemPrice + (row.price?.amount ?? 0));
}

/** What is wrong with the axes and their table, each in a sentence; empty when they fit together. */
export function variationFaults(axes: readonly Axis[], rows: readonly Variation[]): string[] {
  const faults: string[] = [];
  const fold = (text: string) => text.trim().toLowerCase();
  if (new Set(axes.map((axis) => fold(axis.name))).size < axes.length) faults.push('Two axes have the same name');
  for (const axis of axes)
    if (new Set(axis.values.map(fold)).size < axis.values.length) faults.push(`“${axis.name}” names a value twice`);
  if (combinationCount(axes) > mostCombinations)
    faults.push(`${combinationCount(axes)} combinations; at most ${mostCombinations} can be kept`);
  const wanted = new Set(combinations(axes.slice(0, mostAxes)).map(combinationKey));
  if (rows.length !== wanted.size || rows.some((row) => !wanted.has(combinationKey(row.values))))
    faults.push('The table does not fit its axes');
  const skus = rows.map((row) => row.sku).filter(Boolean);
  if (new Set(skus).size < skus.length) faults.push('Two combinations have the same stock number');
  return faults;
}
