import { z } from 'zod';
import type { ItemPatch } from '../item/item';
import type { Json } from '../json';

const offered = z.object({
  axes: z.array(z.object({ name: z.string(), values: z.array(z.string()) })).min(1),
  rows: z
    .array(
      z.object({ values: z.array(z.string()), sku: z.string(), quantity: z.number(), price: z.number().nullable() }),
    )
    .min(1),
});

const ownPrice = (amount: number | null) => (amount === null ? null : { kind: 'own' as const, amount });

/**
 * Axes and combinations as an item holds them; nothing where a listing has none. Each keeps the price that it has there.
 * @param home an amount of theirs in the shop's own currency
 */
export function variationsTold(value: Json | undefined, home: (amount: number) => number | null): ItemPatch {
  const read = offered.safeParse(value);
  if (!read.success) return {};
  return {
    axes: read.data.axes,
    variations: read.data.rows.map(({ values, sku, quantity, price }) => ({
      values,
      on: true,
      sku: /^[A-Za-z0-9][A-Za-z0-9.\-/]{0,39}$/.test(sku) ? sku : '',
      quantity: Math.max(0, Math.round(quantity)),
      price: ownPrice(price === null ? null : home(price)),
      barcode: '',
      key: '',
    })),
  };
}
