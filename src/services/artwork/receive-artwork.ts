import { eq } from 'drizzle-orm';
import { z } from 'zod';
import {
  type ArtworkDetails,
  audienceAttribute,
  groundsAttribute,
  groundsOffered,
  placingSchema,
  readsOn,
  scoreGround,
  tonesOf,
  visibleOf,
  writeGrounds,
} from '../../core/artwork';
import { NettingError } from '../../core/errors';
import type { ItemPatch } from '../../core/item';
import { toRichText } from '../../core/listing/fit/rich-text';
import { database, isDuplicate, transaction } from '../../db/client';
import { artwork } from '../../db/schema';
import { readDetails } from '../../files/xmp';
import { rasterOf } from '../../photos/raster';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { createItemWithin } from '../items/create-item';
import { loadAccounts } from '../records/accounts/load-accounts';
import { keepPhoto } from '../records/photos/keep-photo';

export const receivedArtworkSchema = z.object({
  itemId: z.number(),
  /** The same picture was there already: nothing new was made. */
  known: z.boolean(),
  /** What the file says of itself could not be read. */
  isBroken: z.boolean(),
});
export type ReceivedArtwork = z.infer<typeof receivedArtworkSchema>;

/** Prints are made when they are bought: there are always enough. */
const alwaysEnough = 99;
const category = 'prints/artwork';

/** A file's name as a title: `harbour_at-night.v2.png` → `harbour at night v2`. */
const titleOf = (name: string): string =>
  name
    .replace(/\.[^.]+$/, '')
    .replace(/[_\-.\s]+/g, ' ')
    .trim();

function fieldsOf(name: string, said: ArtworkDetails, grounds: readonly string[]): ItemPatch {
  return {
    title: (said.title || titleOf(name)).slice(0, 300),
    category,
    condition: 'new',
    description: toRichText(said.description),
    keywords: [...new Set(said.tags.map((one) => one.slice(0, 60)))].slice(0, 60),
    attributes: {
      ...(said.audience ? { [audienceAttribute]: said.audience.slice(0, 300) } : {}),
      ...(grounds.length ? { [groundsAttribute]: writeGrounds(grounds) } : {}),
    },
  };
}

/** Makes an item of a picture of artwork, with what its file says of it, and looks on which grounds it reads well. */
export async function receiveArtwork(actor: Actor, file: { bytes: Buffer; name: string }): Promise<ReceivedArtwork> {
  const stored = await keepPhoto(file);
  const before = await knownBy(stored.hash);
  if (before !== null) return { itemId: before, known: true, isBroken: false };
  const raster = await rasterOf(file.bytes);
  const visible = visibleOf(raster);
  if (!visible)
    throw new NettingError('photo-unreadable', `${file.name || 'The file'}: nothing in it is visible`, {
      field: 'photos',
      fix: 'All of it is transparent: export it once more',
    });
  const { details: said, broken: isBroken } = readDetails(file.bytes);
  const tones = tonesOf(raster);
  const grounds = groundsOffered((await loadAccounts(database())).map((one) => one.compiled));
  const scores = grounds.map((one) => scoreGround(tones, one));
  const suits = said.grounds.length ? said.grounds : readsOn(scores);
  try {
    return await transaction(async (tx) => {
      const { id } = await createItemWithin(tx, actor, {
        fields: fieldsOf(file.name, said, suits),
        quantity: alwaysEnough,
      });
      allCommitted(
        await commitItems(tx, [id], () => [{ target: { item: id }, field: 'photos', to: [stored.hash] }], {
          actor,
          why: 'typing',
          at: new Date(),
          send: 'falls',
          photos: [stored],
        }),
      );
      await tx.insert(artwork).values({
        itemId: id,
        hash: stored.hash,
        name: file.name.slice(0, 300),
        visible,
        scores,
        said,
        placing: placingSchema.parse({}),
        isBroken,
        at: new Date(),
      });
      return { itemId: id, known: false, isBroken };
    });
  } catch (error) {
    // The same file twice in one breath: the other one was faster.
    const known = isDuplicate(error) ? await knownBy(stored.hash) : null;
    if (known !== null) return { itemId: known, known: true, isBroken: false };
    throw error;
  }
}

async function knownBy(hash: string): Promise<number | null> {
  const [row] = await database().select({ id: artwork.itemId }).from(artwork).where(eq(artwork.hash, hash));
  return row?.id ?? null;
}
