import { desc, eq, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import {
  type ArtworkDetails,
  artworkDetailsSchema,
  audienceAttribute,
  differing,
  groundsAttribute,
  writeGrounds,
} from '../../core/artwork';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import { toRichText } from '../../core/listing/fit/rich-text';
import { database, transaction } from '../../db/client';
import { artwork, item } from '../../db/schema';
import { readSidecar } from '../../files/xmp';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { loadItem } from '../records/items/load-items';
import { detailsOf } from './artwork-file';

const fieldSchema = z.enum(
  Object.keys(artworkDetailsSchema.shape) as [keyof ArtworkDetails, ...(keyof ArtworkDetails)[]],
); // keys of the schema above

export const takeDetailsSchema = z
  .object({
    /** What is taken over from the file. */
    take: z.array(fieldSchema).default([]),
    /** Where ours stays, and the difference is not shown any more. */
    leave: z.array(fieldSchema).default([]),
  })
  .strict();

const base = (name: string) => name.replace(/\.[^.]+$/, '').toLowerCase();

/** Hears what a file beside a picture says of it, by the picture's name. It is shown, never taken over by itself. */
export async function hearSidecar(file: {
  bytes: Buffer;
  name: string;
}): Promise<{ itemId: number; differs: string[] }> {
  const { details, broken } = readSidecar(file.bytes.toString('utf8'));
  const label = file.name.slice(0, 80) || 'The file';
  if (broken) throw new NettingError('invalid', `${label} cannot be read as XMP`, { fix: 'Export it once more' });
  const rows = await database()
    .select({ id: artwork.itemId, name: artwork.name })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(ne(item.standing, sql`2`))
    .orderBy(desc(artwork.itemId));
  const row = rows.find((one) => base(one.name) === base(file.name));
  if (!row)
    throw new NettingError('not-found', `${label}: there is no picture of this name`, {
      fix: 'Bring the picture in first',
    });
  await database().update(artwork).set({ said: details, isBroken: false }).where(eq(artwork.itemId, row.id));
  return { itemId: row.id, differs: differing(detailsOf(await loadItem(database(), row.id)), details) };
}

/** What a file says of a detail, as a change of the item. */
function changeTo(id: number, field: keyof ArtworkDetails, said: ArtworkDetails): Change {
  const target = { item: id };
  switch (field) {
    case 'title':
      return { target, field: 'title', to: said.title.slice(0, 300) };
    case 'description':
      return { target, field: 'description', to: toRichText(said.description) };
    case 'tags':
      return { target, field: 'keywords', to: [...new Set(said.tags.map((one) => one.slice(0, 60)))].slice(0, 60) };
    case 'audience':
      return { target, field: `attributes.${audienceAttribute}`, to: said.audience.slice(0, 300) };
    case 'grounds':
      return { target, field: `attributes.${groundsAttribute}`, to: writeGrounds(said.grounds) };
  }
}

/** Takes over what a picture's file says, field by field, or leaves ours and the matter be. */
export async function takeDetails(
  actor: Actor,
  itemId: number,
  { take, leave }: z.output<typeof takeDetailsSchema>,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const [art] = await tx.select().from(artwork).where(eq(artwork.itemId, itemId)).for('update');
    if (!art) throw new NettingError('not-found', 'This item is no artwork');
    if (leave.length) {
      const silent = Object.fromEntries(leave.map((field) => [field, Array.isArray(art.said[field]) ? [] : '']));
      await tx
        .update(artwork)
        .set({ said: { ...art.said, ...silent } })
        .where(eq(artwork.itemId, itemId));
    }
    if (take.length === 0) return { version: (await loadItem(tx, itemId)).version };
    const { items } = allCommitted(
      await commitItems(tx, [itemId], () => take.map((field) => changeTo(itemId, field, art.said)), {
        actor,
        why: 'typing',
        at: new Date(),
        send: 'falls',
      }),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
