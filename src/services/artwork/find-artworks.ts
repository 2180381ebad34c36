import { and, desc, eq, lt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import {
  areaSchema,
  audienceAttribute,
  differing,
  groundScoreSchema,
  groundsAttribute,
  groundsOffered,
  placingSchema,
  productsOffered,
  readGrounds,
  visibleSchema,
} from '../../core/artwork';
import { database } from '../../db/client';
import { artwork, item, photoFile } from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { detailsOf } from './artwork-file';

export const findArtworksSchema = z
  .object({
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(100).default(48),
  })
  .strict();

export const artworkViewSchema = z.object({
  itemId: z.number(),
  sku: z.string(),
  version: z.number(),
  title: z.string(),
  name: z.string(),
  hash: z.string(),
  width: z.number(),
  height: z.number(),
  audience: z.string(),
  tags: z.array(z.string()),
  /** Where it reads well, as it stands on the item: corrected by hand. */
  grounds: z.array(z.string()),
  scores: z.array(groundScoreSchema),
  visible: visibleSchema,
  placing: placingSchema,
  /** What the file said otherwise when it came; nothing of it was taken over since. */
  differs: z.array(z.string()),
  isBroken: z.boolean(),
});
export type ArtworkView = z.infer<typeof artworkViewSchema>;

export const artworksSchema = z.object({
  artworks: z.array(artworkViewSchema),
  /** Every ground that is offered anywhere, with its colour. */
  grounds: z.array(z.object({ name: z.string(), colour: z.string() })),
  /** Everything that it is printed on anywhere. */
  products: z.array(z.object({ market: z.string(), id: z.string(), name: z.string(), area: areaSchema })),
  next: z.number().nullable(),
});

const hex = (colour: readonly number[]): string =>
  `#${colour.map((one) => Math.round(one).toString(16).padStart(2, '0')).join('')}`;

/** Artwork, the newest first. */
export async function findArtworks({
  before,
  limit,
}: z.output<typeof findArtworksSchema>): Promise<z.infer<typeof artworksSchema>> {
  const db = database();
  const rows = await db
    .select({ artwork, item, width: photoFile.width, height: photoFile.height })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .innerJoin(photoFile, eq(photoFile.hash, artwork.hash))
    .where(and(ne(item.standing, sql`2`), before ? lt(artwork.itemId, before) : undefined))
    .orderBy(desc(artwork.itemId))
    .limit(limit);
  const accounts = await loadAccounts(db);
  return {
    artworks: rows.map(({ artwork: art, item: row, width, height }) => ({
      itemId: row.id,
      sku: row.sku,
      version: row.version,
      title: row.title,
      name: art.name,
      hash: art.hash,
      width,
      height,
      audience: row.attributes[audienceAttribute] ?? '',
      tags: row.keywords,
      grounds: readGrounds(row.attributes[groundsAttribute] ?? ''),
      scores: art.scores,
      visible: art.visible,
      placing: art.placing,
      differs: differing(detailsOf(row), art.said),
      isBroken: art.isBroken,
    })),
    grounds: groundsOffered(accounts.map((one) => one.compiled)).map(({ name, colour }) => ({
      name,
      colour: hex(colour),
    })),
    products: productsOffered(accounts.map((one) => one.compiled)),
    next: rows.length < limit ? null : (rows.at(-1)?.item.id ?? null),
  };
}
