import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { type ArtworkDetails, audienceAttribute, groundsAttribute, readsOn, scoreGround } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import type { ItemPatch } from '../../core/item';
import { database, isDuplicate, transaction } from '../../db/client';
import { artwork, item, photoFile } from '../../db/schema';
import { isSvg, safeSvg, svgPacket } from '../../files/svg';
import { readDetails, readSidecar, type ToldDetails } from '../../files/xmp';
import { drawn } from '../../photos/raster';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { createItemWithin } from '../items/create-item';
import { keepPhoto } from '../records/photos/keep-photo';
import { allGrounds } from './all-grounds';
import { heldOf, mostTags } from './item-details';
import { lookAtArtwork, twinOf } from './look-at-artwork';

export const receivedArtworkSchema = z.object({
  itemId: z.number(),
  /** The same picture was there already: nothing new was made. */
  known: z.boolean(),
  /** Artwork that looks like it, in another size or file. */
  twin: z.number().nullable(),
  /** What of the file was not taken over, or could not be read, in sentences. */
  notes: z.array(z.string()),
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

function fieldsOf(name: string, told: ArtworkDetails, suits: readonly string[]): ItemPatch {
  const { title, description, tags, audience, grounds } = heldOf({ ...told, grounds: [...suits] });
  return {
    title: title || titleOf(name).slice(0, 300),
    category,
    condition: 'new',
    description,
    keywords: tags,
    attributes: {
      ...(audience ? { [audienceAttribute]: audience } : {}),
      ...(grounds ? { [groundsAttribute]: grounds } : {}),
    },
  };
}

/** What could not be read of a file, or is more than an item holds. */
const notesOn = (name: string, { details, broken }: ToldDetails): string[] => [
  ...(broken ? [`${name}: what it says of itself cannot be read; it is left as it is`] : []),
  ...(details.tags.length > mostTags
    ? [`${name}: the first ${mostTags} of its ${details.tags.length} tags are taken over; the file keeps all of them`]
    : []),
];

type Opened = { bytes: Buffer; told: ToldDetails };

/** A drawing of lines becomes a picture, without anything that could be run or fetched. */
async function opened(file: { bytes: Buffer; name: string }): Promise<Opened> {
  if (!isSvg(file.bytes)) return { bytes: file.bytes, told: readDetails(file.bytes) };
  const packet = svgPacket(file.bytes);
  try {
    return { bytes: await drawn(safeSvg(file.bytes)), told: readSidecar(packet) };
  } catch {
    throw new NettingError('photo-unreadable', `${file.name || 'The file'} is a drawing that cannot be read`, {
      field: 'photos',
      fix: 'Export it as PNG with transparency',
    });
  }
}

/** Makes an item of a picture of artwork, with what its file says of it, and looks on which grounds it reads well. */
export async function receiveArtwork(actor: Actor, file: { bytes: Buffer; name: string }): Promise<ReceivedArtwork> {
  const label = file.name.slice(0, 80) || 'The file';
  const { bytes, told } = await opened(file);
  const stored = await keepPhoto({ bytes, name: file.name }, 'artwork');
  const notes = notesOn(label, told);
  const before = await knownBy(eq(artwork.hash, stored.hash));
  if (before) return { itemId: before.id, known: true, twin: null, notes };
  const seen = await lookAtArtwork(bytes);
  const { visible } = seen;
  if (!visible)
    throw new NettingError('photo-unreadable', `${label}: nothing in it is visible`, {
      field: 'photos',
      fix: 'All of it is transparent: export it once more',
    });
  // The same pixels: another program has written other words into the file. They are shown, not taken over.
  const same = await knownBy(
    and(eq(artwork.pixels, seen.pixels), eq(photoFile.width, stored.width), eq(photoFile.height, stored.height)),
  );
  if (same) {
    await database()
      .update(artwork)
      .set({ said: told.details, isBroken: told.broken })
      .where(eq(artwork.itemId, same.id));
    return { itemId: same.id, known: true, twin: null, notes };
  }
  const twin = await twinOf(database(), seen.print);
  const scores = (await allGrounds()).map((one) => scoreGround(seen.tones, one));
  const suits = told.details.grounds.length ? told.details.grounds : readsOn(scores);
  try {
    return await transaction(async (tx) => {
      await tx.update(photoFile).set({ visible }).where(eq(photoFile.hash, stored.hash));
      const { id } = await createItemWithin(tx, actor, {
        fields: fieldsOf(file.name, told.details, suits),
        quantity: alwaysEnough,
      });
      await tx.insert(artwork).values({
        itemId: id,
        hash: stored.hash,
        name: file.name.slice(0, 300),
        tones: seen.tones,
        print: seen.print,
        pixels: seen.pixels,
        twinOf: twin,
        said: told.details,
        isBroken: told.broken,
        at: new Date(),
      });
      allCommitted(
        await commitItems(tx, [id], () => [{ target: { item: id }, field: 'photos', to: [stored.hash] }], {
          actor,
          why: 'typing',
          at: new Date(),
          send: 'falls',
          photos: [{ ...stored, visible }],
        }),
      );
      return { itemId: id, known: false, twin, notes };
    });
  } catch (error) {
    // The same file twice in one breath: the other one was faster.
    const known = isDuplicate(error) ? await knownBy(eq(artwork.hash, stored.hash)) : null;
    if (known) return { itemId: known.id, known: true, twin: null, notes };
    throw error;
  }
}

async function knownBy(condition: ReturnType<typeof and>): Promise<{ id: number } | null> {
  const [row] = await database()
    .select({ id: artwork.itemId, standing: item.standing, title: item.title })
    .from(artwork)
    .innerJoin(photoFile, eq(photoFile.hash, artwork.hash))
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(condition);
  if (row?.standing === 'deleted')
    throw new NettingError('conflict', `“${row.title}” is this picture, and was deleted`, {
      fix: 'Bring it back from what was deleted',
    });
  return row ? { id: row.id } : null;
}
