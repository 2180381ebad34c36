import type { Item } from '../../item/item';
import { type Axis, variationPrice } from '../../item/variations';
import { type Json, ownValue } from '../../json';
import type { MarketRules } from '../../rules/rules';

/** `photos`: a value may have a photo of its own there. */
export type VariationLimits = { maxAxes: number; maxCombinations: number; photos?: boolean };
/**
 * What a marketplace takes of an item's own variations; null where it takes none. One that makes its own products takes what
 * these and their grounds come to, and nothing else.
 */
export const ownLimits = ({ variations }: Pick<MarketRules, 'variations'>): VariationLimits | null =>
  variations && !variations.printed ? variations : null;

/** Axis → the one value of it that is offered here. */
export type Narrowing = Record<string, string>;
export type OfferedVariation = {
  values: string[];
  sku: string;
  quantity: number;
  price: number | null;
  barcode: string;
  /** Its price is its own, not the item's with a difference. */
  ownPrice: boolean;
};
export type FittedVariations = {
  axes: Axis[];
  rows: OfferedVariation[];
  /** Why they cannot be offered like this, in a sentence; null when they can. */
  problem: string | null;
};

/** What a difference says of variations: which value of which axis alone is offered. */
export function readNarrowing(value: Json | undefined): Narrowing {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return {};
  return Object.fromEntries(
    Object.entries(value).flatMap(([axis, one]) => (typeof one === 'string' ? [[axis, one]] : [])),
  );
}

/**
 * The item's combinations as a marketplace shall offer them: those that are switched on, narrowed to the values chosen
 * here, without the axes that have one value left. Where no variations are taken, one combination may remain.
 */
export function fitVariations(
  item: Pick<Item, 'axes' | 'variations' | 'price'>,
  limits: VariationLimits | null,
  narrowing: Narrowing,
): FittedVariations {
  const kept = item.variations.filter(
    (row) =>
      row.on &&
      item.axes.every(
        (axis, index) =>
          ownValue(narrowing, axis.name) === undefined || row.values[index] === ownValue(narrowing, axis.name),
      ),
  );
  const open = item.axes.flatMap((axis, index) => (ownValue(narrowing, axis.name) === undefined ? [index] : []));
  const axes = open.flatMap((index) => {
    const axis = item.axes[index];
    if (!axis) return [];
    const values = axis.values.filter((value) => kept.some((row) => row.values[index] === value));
    const shown = Object.entries(axis.photos ?? {}).filter(([value]) => limits?.photos && values.includes(value));
    return [{ name: axis.name, values, ...(shown.length ? { photos: Object.fromEntries(shown) } : {}) }];
  });
  const rows = kept.map(
    (row): OfferedVariation => ({
      values: open.map((index) => row.values[index] ?? ''),
      sku: row.sku,
      quantity: Math.max(0, row.quantity),
      price: variationPrice(item.price, row),
      barcode: row.barcode,
      ownPrice: row.price?.kind === 'own',
    }),
  );
  if (rows.length === 0) return { axes, rows, problem: 'None of the combinations that are switched on is left here' };
  if (axes.length === 0 || (rows.length === 1 && limits === null))
    return { axes: limits ? axes : [], rows, problem: null };
  if (limits === null)
    return { axes, rows, problem: `Variations are not taken here, and there are ${rows.length} of them` };
  if (axes.length > limits.maxAxes)
    return { axes, rows, problem: `At most ${limits.maxAxes} axes are taken here, there are ${axes.length}` };
  if (rows.length > limits.maxCombinations)
    return {
      axes,
      rows,
      problem: `At most ${limits.maxCombinations} combinations are taken here, there are ${rows.length}`,
    };
  return { axes, rows, problem: null };
}
