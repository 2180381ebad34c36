import { z } from 'zod';
import type { Json } from '../core/json';
import type { Content } from '../core/listing';
import { readPhotoReference } from '../core/photo/reference';

const offered = z.object({
  axes: z.array(
    z.object({
      name: z.string(),
      values: z.array(z.string()),
      photos: z.record(z.string(), z.string()).optional(),
    }),
  ),
  rows: z.array(
    z.object({
      values: z.array(z.string()),
      sku: z.string(),
      quantity: z.number(),
      price: z.number().nullable(),
    }),
  ),
});

/** A value's photo by what it is called there; one that is not among the listing's photos is left out. */
function pictures(photos: Record<string, string>, content: Content, photoIds: readonly string[]) {
  const references = (Array.isArray(content.photos) ? content.photos : []).map(String);
  const hashes = references.map((one) => readPhotoReference(one).hash);
  return Object.fromEntries(
    Object.entries(photos).flatMap(([value, hash]) => {
      // A printable is one of several that are made of the same picture.
      const place = references.indexOf(hash);
      const id = photoIds[place === -1 ? hashes.indexOf(hash) : place];
      return id === undefined ? [] : [[value, id]];
    }),
  );
}

/** The combinations in the form in which marketplaces that take them want them; null for a listing without. */
export function variationsToWire(content: Content, photoIds: readonly string[]): Record<string, unknown> | null {
  const read = offered.safeParse(content.variations);
  if (!read.success) return null;
  return {
    axes: read.data.axes.map(({ photos, ...axis }) =>
      photos ? { ...axis, pictures: pictures(photos, content, photoIds) } : axis,
    ),
    rows: read.data.rows.map(({ values, sku, quantity, price }) => ({
      values,
      number: sku,
      stock: quantity,
      cents: price,
    })),
  };
}

const shown = z.object({
  axes: z.array(z.object({ name: z.string(), values: z.array(z.string()) })),
  rows: z.array(
    z.object({
      values: z.array(z.string()),
      number: z.string().nullish(),
      stock: z.number(),
      cents: z.number().nullish(),
    }),
  ),
});

/** The combinations that a marketplace shows, in our form; null where it shows none. */
export function variationsFromWire(wire: unknown): Json {
  const read = shown.safeParse(wire);
  if (!read.success) return null;
  return {
    axes: read.data.axes,
    rows: read.data.rows.map(({ values, number, stock, cents }) => ({
      values,
      sku: number ?? '',
      quantity: stock,
      price: cents ?? null,
    })),
  };
}
