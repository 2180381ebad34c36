import { and, desc, eq, lt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import {
  audienceAttribute,
  differing,
  groundScoreSchema,
  groundsAttribute,
  readGrounds,
  scoreGround,
} from '../../core/artwork';
import { itemSchema } from '../../core/item/item';
import { database } from '../../db/client';
import { artwork, item } from '../../db/schema';
import { loadItems } from '../records/items/load-items';
import { allGrounds } from './all-grounds';
import { detailsOf } from './item-details';
import { lookAtOlder } from './look-at-artwork';

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
  /** The picture, with what of it is visible. */
  photos: itemSchema.shape.photos,
  placings: itemSchema.shape.placings,
  /** What the file says otherwise; nothing of it is taken over by itself. */
  differs: z.array(z.object({ field: z.string(), ours: z.string(), theirs: z.string() })),
  isBroken: z.boolean(),
  /** Artwork that looks like it. */
  twin: z.object({ itemId: z.number(), title: z.string(), width: z.number(), height: z.number() }).nullable(),
});
export type ArtworkView = z.infer<typeof artworkViewSchema>;

export const artworksSchema = z.object({
  artworks: z.array(artworkViewSchema),
  next: z.number().nullable(),
});

const words = (said: string | string[]): string => (Array.isArray(said) ? said.join(', ') : said).slice(0, 300);

/** Artwork, the newest first. */
export async function findArtworks({
  before,
  limit,
}: z.output<typeof findArtworksSchema>): Promise<z.infer<typeof artworksSchema>> {
  const db = database();
  const read = () =>
    db
      .select({ artwork })
      .from(artwork)
      .innerJoin(item, eq(item.id, artwork.itemId))
      .where(and(ne(item.standing, sql`2`), before ? lt(artwork.itemId, before) : undefined))
      .orderBy(desc(artwork.itemId))
      .limit(limit);
  let rows = await read();
  const older = rows.filter((one) => one.artwork.tones === null).map((one) => one.artwork.hash);
  if (older.length) {
    await lookAtOlder(older);
    rows = await read();
  }
  const arts = rows.map((one) => one.artwork);
  const twins = arts.flatMap((one) => one.twinOf ?? []);
  const items = new Map(
    (await loadItems(db, [...new Set([...arts.map((one) => one.itemId), ...twins])])).map((one) => [one.id, one]),
  );
  const grounds = await allGrounds();
  return {
    artworks: arts.flatMap((art): ArtworkView[] => {
      const row = items.get(art.itemId);
      const picture = row?.photos.find((one) => one.hash === art.hash);
      if (!row || !picture) return [];
      const { tones } = art;
      const ours = detailsOf(row);
      const twin = art.twinOf === null ? undefined : items.get(art.twinOf);
      const [twinPicture] = twin?.standing === 'deleted' ? [] : (twin?.photos ?? []);
      return [
        {
          itemId: row.id,
          sku: row.sku,
          version: row.version,
          title: row.title,
          name: art.name,
          hash: art.hash,
          width: picture.width,
          height: picture.height,
          audience: row.attributes[audienceAttribute] ?? '',
          tags: row.keywords,
          grounds: readGrounds(row.attributes[groundsAttribute] ?? ''),
          scores: tones ? grounds.map((one) => scoreGround(tones, one)) : [],
          photos: [picture],
          placings: row.placings,
          differs: differing(ours, art.said).map((field) => ({
            field,
            ours: words(ours[field]),
            theirs: words(art.said[field]),
          })),
          isBroken: art.isBroken,
          twin:
            twin && twinPicture
              ? { itemId: twin.id, title: twin.title, width: twinPicture.width, height: twinPicture.height }
              : null,
        },
      ];
    }),
    next: rows.length < limit ? null : (arts.at(-1)?.itemId ?? null),
  };
}
