import { z } from 'zod';
import type { Content } from '../core/listing';

const offered = z.object({
  axes: z.array(z.object({ name: z.string(), values: z.array(z.string()) })),
  rows: z.array(
    z.object({
      values: z.array(z.string()),
      sku: z.string(),
      quantity: z.number(),
      price: z.number().nullable(),
    }),
  ),
});

/** The combinations in the form in which marketplaces that take them want them; null for a listing without. */
export function variationsToWire(content: Content): Record<string, unknown> | null {
  const read = offered.safeParse(content.variations);
  if (!read.success) return null;
  return {
    axes: read.data.axes,
    rows: read.data.rows.map(({ values, sku, quantity, price }) => ({
      values,
      number: sku,
      stock: quantity,
      cents: price,
    })),
  };
}
