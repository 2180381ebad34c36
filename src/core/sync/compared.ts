import type { Json } from '../json';

const own = (value: Json | undefined): Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? value : {};
const many = (value: Json | undefined): Json[] => (Array.isArray(value) ? value : []);

/**
 * What of a field's value two sides can be compared by. Of combinations it is their axes, values, numbers and prices:
 * pictures have other names on a marketplace, barcodes are not shown back. Any other value stands for itself.
 * @param withStock also the stock of each combination, which falls there by every sale
 */
export function compared(field: string, value: Json, withStock = false): Json {
  if (field !== 'variations' || value === null) return value;
  const { axes, rows } = own(value);
  return {
    axes: many(axes).map((axis) => ({ name: own(axis).name ?? null, values: own(axis).values ?? [] })),
    rows: many(rows).map((row) => ({
      values: own(row).values ?? [],
      sku: own(row).sku ?? null,
      price: own(row).price ?? null,
      ...(withStock ? { quantity: own(row).quantity ?? null } : {}),
    })),
  };
}
