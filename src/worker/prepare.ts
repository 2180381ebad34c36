import { randomUUID } from 'node:crypto';
import { and, eq, inArray } from 'drizzle-orm';
import type { Content } from '../core/listing';
import { database } from '../db/client';
import { job, type listing, remotePhoto } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import type { Connector, Session } from '../markets';
import { photoFor } from '../photos/shaped';
import type { LoadedAccount } from '../services/records/load-accounts';
import type { JobRow } from './claim';
import { told } from './finish';

/** An account under way: urgent work speaks through a session of its own, whose requests go first. */
export type Lane = { account: LoadedAccount; session: Session; worker: string };
export type ListingRow = typeof listing.$inferSelect;

/** The marketplace's numbers of these photos; those it does not have yet are uploaded first. */
export async function photoIds(lane: Lane, connector: Connector, hashes: string[]): Promise<string[]> {
  const db = database();
  const known = hashes.length
    ? await db
        .select()
        .from(remotePhoto)
        .where(and(eq(remotePhoto.accountId, lane.account.id), inArray(remotePhoto.hash, hashes)))
    : [];
  const ids = new Map(known.map((row) => [row.hash, row.remoteId]));
  for (const hash of hashes) {
    if (ids.has(hash)) continue;
    const remoteId = await connector.uploadPhoto(
      lane.session,
      await photoFor(hash, lane.account.compiled.rules.photos),
    );
    await db
      .insert(remotePhoto)
      .values({ accountId: lane.account.id, hash, remoteId, at: new Date() })
      .onDuplicateKeyUpdate({ set: { remoteId } });
    ids.set(hash, remoteId);
  }
  return hashes.flatMap((hash) => ids.get(hash) ?? []);
}

export const hashesOf = (content: Content): string[] =>
  Array.isArray(content.photos) ? content.photos.map(String) : [];

/** Keeps what is about to be sent with the job, so that a repeat after a crash is the same and carries the same key. */
export async function freeze(row: JobRow, request: FrozenRequest): Promise<{ key: string }> {
  const key = randomUUID();
  const text =
    request.kind === 'create'
      ? 'Sending a new listing'
      : request.kind === 'end'
        ? 'Ending the listing'
        : `Sending ${request.fields.join(', ')}`;
  row.story = told(row, text);
  await database().update(job).set({ request, idempotencyKey: key, story: row.story }).where(eq(job.id, row.id));
  return { key };
}
