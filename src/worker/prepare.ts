import { randomUUID } from 'node:crypto';
import { and, eq, gt, inArray } from 'drizzle-orm';
import { NettingError } from '../core/errors';
import type { Content } from '../core/listing';
import { database, transaction } from '../db/client';
import { job, listing, remotePhoto } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import { type Connector, LostLease, type Session } from '../markets';
import { photoFor } from '../photos/shaped';
import type { LoadedAccount } from '../services/records/accounts/load-accounts';
import type { JobRow } from './claim';
import { isHeld } from './held';
import { told } from './outcome/close';

/** An account under way: urgent work speaks through a session of its own, whose requests go first. */
export type Lane = { account: LoadedAccount; session: Session; worker: string };
export type ListingRow = typeof listing.$inferSelect;

/** Uploads that no listing shows are forgotten by some after a day: an older one is not counted on, in milliseconds. */
const uploadsLastMs = 20 * 3_600_000;

/** What the marketplace has of these files, by what it calls them. */
export const uploadsOf = (lane: Lane, hashes: readonly string[]) =>
  hashes.length
    ? database()
        .select()
        .from(remotePhoto)
        .where(
          and(
            eq(remotePhoto.accountId, lane.account.id),
            inArray(remotePhoto.hash, [...hashes]),
            gt(remotePhoto.at, new Date(Date.now() - uploadsLastMs)),
          ),
        )
    : [];

/** Keeps what the marketplace calls a file that was uploaded now. */
export async function keepUpload(lane: Lane, hash: string, remoteId: string): Promise<void> {
  await database()
    .insert(remotePhoto)
    .values({ accountId: lane.account.id, hash, remoteId, at: new Date() })
    .onDuplicateKeyUpdate({ set: { remoteId, at: new Date() } });
}

/** The marketplace's numbers of these photos; those it does not have, or may have forgotten, are uploaded first. */
export async function photoIds(lane: Lane, connector: Connector, hashes: string[]): Promise<string[]> {
  const ids = new Map((await uploadsOf(lane, hashes)).map((row) => [row.hash, row.remoteId]));
  for (const hash of hashes) {
    if (ids.has(hash)) continue;
    const bytes = await photoFor(hash, lane.account.compiled.rules.photos).catch((error: unknown) => {
      throw (error as { code?: string }).code === 'ENOENT' // what the file system says of a file that is not there
        ? new NettingError('not-ready', 'The file of one of its photos is missing', {
            field: 'photos',
            fix: 'Take the photo out, or add it again',
          })
        : error;
    });
    const remoteId = await connector.uploadPhoto(lane.session, bytes);
    await keepUpload(lane, hash, remoteId);
    ids.set(hash, remoteId);
  }
  return hashes.flatMap((hash) => ids.get(hash) ?? []);
}

export const hashesOf = (content: Content): string[] =>
  Array.isArray(content.photos) ? content.photos.map(String) : [];

/** Whether a send of these fields names photos: itself, or by the values of variations. */
export const namesPhotos = (content: Content, fields: readonly string[]): boolean =>
  fields.includes('photos') ||
  (fields.includes('variations') && JSON.stringify(content.variations ?? null).includes('"photos"'));

const pick = (content: Content | null, fields: readonly string[]): Content =>
  Object.fromEntries(Object.entries(content ?? {}).filter(([field]) => fields.includes(field)));
const without = (content: Content | null, fields: readonly string[]): Content | null =>
  content && Object.fromEntries(Object.entries(content).filter(([field]) => !fields.includes(field)));

/**
 * Keeps what is about to be sent with the job, so that a repeat after a crash is the same and carries the same key. From
 * here until they answer it is not known what they hold in these fields: they may or may not have taken them, so they go
 * with whatever is sent next; and of a creation it is not known whether it stands there.
 * @throws {LostLease} when somebody else has taken the job meanwhile
 */
export async function freeze({ worker }: Lane, row: JobRow, request: FrozenRequest): Promise<{ key: string }> {
  const key = randomUUID();
  const text =
    request.kind === 'create'
      ? request.switchesOn
        ? `Switching listing ${request.switchesOn} on again`
        : 'Sending a new listing'
      : request.kind === 'end'
        ? 'Ending the listing'
        : `Sending ${request.fields.join(', ')}`;
  row.story = told(row, text);
  const open = request.kind === 'end' ? ['quantity'] : request.kind === 'update' ? request.fields : [];
  await transaction(async (tx) => {
    if (open.length) {
      const [before] = await tx
        .select({ sent: listing.sent, base: listing.base })
        .from(listing)
        .where(eq(listing.id, row.listingId))
        .for('update');
      row.request = {
        ...request,
        known: { sent: pick(before?.sent ?? null, open), base: pick(before?.base ?? null, open) },
      };
      await tx
        .update(listing)
        .set({
          sent: without(before?.sent ?? null, open),
          base: without(before?.base ?? null, open),
          contentDirty: true,
          ...(open.includes('price') ? { sentPrice: null } : {}),
          ...(open.includes('quantity') ? { sentQuantity: null } : {}),
        })
        .where(eq(listing.id, row.listingId));
    } else row.request = request;
    if (request.kind === 'create')
      await tx.update(listing).set({ remote: 'maybe' }).where(eq(listing.id, row.listingId));
    const [{ affectedRows }] = await tx
      .update(job)
      .set({ request: row.request, idempotencyKey: key, story: row.story })
      .where(isHeld(row, worker));
    if (affectedRows !== 1) throw new LostLease();
  });
  return { key };
}
