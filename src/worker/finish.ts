import { eq, sql } from 'drizzle-orm';
import type { NettingError } from '../core/errors';
import type { Content } from '../core/listing';
import { type Tx, transaction } from '../db/client';
import { item, job, listing, previousRemoteId } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import { LostLease, type RemoteListing } from '../markets';
import { refreshListings } from '../services/records/refresh-listings';
import { hasDrifted, refusalOf } from '../services/records/shown-columns';
import { listAgainIfCancelled } from '../services/stock/list-again-if-cancelled';
import type { JobRow } from './claim';
import { isHeld } from './held';

const maxStory = 40;
const longestUrl = 300;

/** Adds a line to a job's story: what was sent, what was answered. */
export const told = (row: JobRow, text: string): JobRow['story'] => [
  ...(row.story ?? []).slice(-maxStory),
  { at: new Date().toISOString(), text },
];

/** Holds the item of a job, then its listing, then the job: the order in which the house locks. Returns the job as it is. */
async function hold(tx: Tx, row: Pick<JobRow, 'id' | 'listingId'>): Promise<JobRow | undefined> {
  const [there] = await tx.select({ itemId: listing.itemId }).from(listing).where(eq(listing.id, row.listingId));
  if (there) await tx.select({ id: item.id }).from(item).where(eq(item.id, there.itemId)).for('update');
  await tx.select({ id: listing.id }).from(listing).where(eq(listing.id, row.listingId)).for('update');
  const [now] = await tx.select().from(job).where(eq(job.id, row.id)).for('update');
  return now;
}

/** Whether it is still what this worker took: another claim, also one of its own, has a number of its own. */
const isOwn = (now: JobRow | undefined, row: JobRow, worker: string): now is JobRow =>
  now !== undefined && now.state === 'running' && now.leaseOwner === worker && now.lease === row.lease;

/**
 * Ends a job in the transaction that stores what came of it. When changes joined while it ran, it goes back into the
 * line instead, with nothing kept of the request that was answered. A worker that lost its lease changes nothing.
 */
async function close(tx: Tx, row: JobRow, worker: string, set: Partial<JobRow>, again = false): Promise<boolean> {
  const now = await hold(tx, row);
  if (!isOwn(now, row, worker)) return false;
  const joined = again || now.generation !== row.generation;
  if (joined) {
    // A create that nobody answered stays with the job: it has to be settled before anything else is sent.
    const settled = set.request?.kind === 'create' ? { request: set.request } : { request: null, idempotencyKey: null };
    await tx
      .update(job)
      .set({
        state: 'waiting',
        attempts: 0,
        // What joined meanwhile is a change; the listing was made anew already.
        ...(row.kind === 'renew' && set.outcome === 'renewed'
          ? { kind: 'sync' as const, outcome: 'renewed' as const }
          : {}),
        leaseOwner: null,
        ...settled,
        dueAt: sql`utc_timestamp(3)`,
        story: set.story,
      })
      .where(eq(job.id, row.id));
    return true;
  }
  await tx
    .update(job)
    // Made anew in an earlier round: that is what the job will be remembered for.
    .set({
      ...set,
      ...(now.outcome === 'renewed' && set.state === 'done' ? { outcome: 'renewed' as const } : {}),
      liveListing: null,
      leaseOwner: null,
      finishedAt: new Date(),
    })
    .where(eq(job.id, row.id));
  await tx
    .update(listing)
    .set({ busy: false, problem: set.state === 'failed' })
    .where(eq(listing.id, row.listingId));
  return true;
}

export type Sent = {
  outcome: 'created' | 'changed' | 'ended' | 'renewed';
  /** The fields that a change carried, and those that are shown with them; everything for the others. */
  fields?: string[];
  shown?: string[];
  content: Content;
  remote: RemoteListing;
  /** Of what was created: it was there before, and is only in sight again. */
  isSwitchedOn?: boolean;
  /** What was settled is an earlier request: what is wanted by now is looked at in one more round. */
  earlier?: boolean;
};

const numberOrNull = (value: unknown) => (typeof value === 'number' ? value : null);

/** Their showing of what we last sent: of a change only the fields that it carried, so that theirs are not taken for ours. */
function baseAfter(before: Content | null, sent: Sent): Content {
  if (!before || !sent.fields) return sent.remote.content;
  const base = { ...before };
  for (const field of sent.shown ?? sent.fields) {
    const shown = sent.remote.content[field];
    if (shown === undefined) delete base[field];
    else base[field] = shown;
  }
  return base;
}

/** What we last sent: after a change of some fields, those of it. */
function sentAfter(before: Content | null, sent: Sent): Content {
  if (!before || !sent.fields) return sent.content;
  const now = { ...before };
  for (const field of sent.fields) {
    const value = sent.content[field];
    if (value === undefined || value === null) delete now[field];
    else now[field] = value;
  }
  return now;
}

/** They took a part of what was sent: that is known; the rest stays unknown and goes with the next try. */
export async function storeTaken(row: JobRow, worker: string, sent: Sent): Promise<void> {
  await transaction(async (tx) => {
    if (!isOwn(await hold(tx, row), row, worker)) return;
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId));
    const now = sentAfter(before?.sent ?? null, sent);
    await tx
      .update(listing)
      .set({
        sentAt: new Date(),
        seenAt: new Date(),
        seen: sent.remote.content,
        base: baseAfter(before?.base ?? null, sent),
        sent: now,
        sentPrice: numberOrNull(now.price),
        sentQuantity: numberOrNull(now.quantity),
      })
      .where(eq(listing.id, row.listingId));
  });
}

/** They confirmed: snapshots, number and link are stored and the job ends, together. */
export async function finishSent(row: JobRow, worker: string, itemId: number, sent: Sent): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const isNew = (sent.outcome === 'created' || sent.outcome === 'renewed') && !sent.isSwitchedOn;
    const verb = sent.isSwitchedOn ? 'switched on again' : isNew ? 'made' : sent.outcome;
    const closed = await close(
      tx,
      row,
      worker,
      {
        state: 'done',
        outcome: sent.outcome,
        message: null,
        fix: null,
        errorCode: null,
        field: null,
        story: told(row, `They answered: listing ${sent.remote.remoteId} ${verb}`),
      },
      sent.earlier,
    );
    if (!closed) return;
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId));
    const base = baseAfter(before?.base ?? null, sent);
    const isLive = sent.remote.state === 'live' || sent.remote.state === 'review';
    await tx
      .update(listing)
      .set({
        remote: sent.remote.state,
        remoteId: sent.remote.remoteId,
        // A link that no column holds is not worth the listing: it is read again with the next showing.
        remoteUrl: sent.remote.url && sent.remote.url.length > longestUrl ? null : sent.remote.url,
        sentAt: at,
        seenAt: at,
        seen: sent.remote.content,
        base,
        drifted: hasDrifted(base, sent.remote.content),
        renewsAt: sent.remote.renewsAt,
        offersOpen: sent.remote.offersOpen,
        endsAt: sent.remote.endsAt,
        bids: sent.remote.bids,
        highestBid: sent.remote.highestBid,
        ...(sent.outcome === 'ended'
          ? { wanted: sql`if(wanted = 'live', 'live', 'ended')`, sentQuantity: 0 }
          : {
              sent: sentAfter(before?.sent ?? null, sent),
              sentPrice: numberOrNull(sentAfter(before?.sent ?? null, sent).price),
              sentQuantity: numberOrNull(sentAfter(before?.sent ?? null, sent).quantity),
            }),
        ...(isNew ? { liveSince: at, timesMade: sql`times_made + 1`, ...refusalOf(sent.remote) } : {}),
      })
      .where(eq(listing.id, row.listingId));
    if (isLive) await refreshListings(tx, [itemId]);
    if (sent.outcome === 'ended') await listAgainIfCancelled(tx, itemId, row.listingId, row.createdAt);
  });
}

/** The first half of a renewal: it is ended there, its number is kept in the history, and it can be made anew. */
export async function storeEnded(row: JobRow, worker: string, why: 'renewed' | 'made-again'): Promise<void> {
  await transaction(async (tx) => {
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId)).for('update');
    if (!before?.remoteId) return;
    await tx.insert(previousRemoteId).values({
      listingId: before.id,
      accountId: before.accountId,
      remoteId: before.remoteId,
      remoteUrl: before.remoteUrl,
      liveSince: before.liveSince,
      why,
      at: new Date(),
    });
    await tx
      .update(listing)
      .set({ remote: 'none', remoteId: null, remoteUrl: null, sentQuantity: 0, offersOpen: 0, renewsAt: null })
      .where(eq(listing.id, row.listingId));
    row.story = told(row, `They answered: listing ${before.remoteId} ended; it is made anew now`);
    row.request = null;
    const [{ affectedRows }] = await tx
      .update(job)
      .set({ request: null, idempotencyKey: null, story: row.story })
      .where(isHeld(row, worker));
    if (affectedRows !== 1) throw new LostLease();
  });
}

/** They do not have it live any more: that is stored, and the job ends without having changed anything. */
export async function finishGone(
  row: JobRow,
  worker: string,
  itemId: number,
  remote: 'off' | 'ended' | 'sold' | 'refused' | 'gone',
): Promise<void> {
  const why = remote === 'sold' ? 'It was sold there meanwhile' : 'It is not live there any more';
  await transaction(async (tx) => {
    if (!(await close(tx, row, worker, { state: 'done', outcome: 'nothing', message: why, story: told(row, why) })))
      return;
    await tx.update(listing).set({ remote, seenAt: new Date() }).where(eq(listing.id, row.listingId));
    await refreshListings(tx, [itemId]);
    await listAgainIfCancelled(tx, itemId, row.listingId, row.createdAt);
  });
}

/**
 * There was nothing to do.
 * @param unwanted it was to be made and is not any more: a draft again, unless a change joined meanwhile
 */
export async function finishNothing(
  row: JobRow,
  worker: string,
  itemId: number,
  why: string,
  unwanted = false,
): Promise<void> {
  await transaction(async (tx) => {
    if (!(await close(tx, row, worker, { state: 'done', outcome: 'nothing', message: why, story: told(row, why) })))
      return;
    await tx
      .update(listing)
      // Nothing is done only when nothing is open: a creation that was never answered has been looked for.
      .set({
        remote: sql`if(remote = 'maybe', 'none', remote)`,
        ...(unwanted ? { wanted: sql`if(wanted = 'live' and busy = 0, 'draft', wanted)` } : {}),
      })
      .where(eq(listing.id, row.listingId));
    await refreshListings(tx, [itemId]);
  });
}

/**
 * They said that they did not take what was sent in this try: what was known before is known again. Of the quantity that
 * may have been lowered meanwhile nothing is believed.
 * @param before what the job had sent in earlier tries: whether that was taken this answer does not say
 */
export async function notTaken(row: JobRow, worker: string, before: FrozenRequest | null): Promise<void> {
  const { request } = row;
  if (!request || request === before) return;
  if (request.kind === 'create') {
    await transaction(async (tx) => {
      await hold(tx, row);
      const [{ affectedRows }] = await tx
        .update(job)
        .set({ request: null, idempotencyKey: null })
        .where(isHeld(row, worker));
      if (affectedRows === 1)
        await tx
          .update(listing)
          .set({ remote: sql`if(remote = 'maybe', 'none', remote)` })
          .where(eq(listing.id, row.listingId));
    });
    row.request = null;
    return;
  }
  if (!request.known) return;
  const { quantity: _sent, ...sent } = request.known.sent;
  const { quantity: _base, ...base } = request.known.base;
  await transaction(async (tx) => {
    const [there] = await tx.select().from(listing).where(eq(listing.id, row.listingId)).for('update');
    if (!there?.sent) return;
    await tx
      .update(listing)
      .set({
        sent: { ...sent, ...there.sent },
        base: there.base && { ...base, ...there.base },
        ...(there.sentPrice === null && typeof sent.price === 'number' ? { sentPrice: sent.price } : {}),
      })
      .where(eq(listing.id, row.listingId));
  });
}

/** Nobody can mend it by waiting: the reason stays with the listing until a person did something. */
export async function finishFailed(
  row: JobRow,
  worker: string,
  error: Pick<NettingError, 'code' | 'message' | 'facts'>,
): Promise<void> {
  const { facts } = error;
  // A refusal settles it, also that of a repeat: nothing was made. Otherwise it may be open still, and the next job for the
  // listing looks before it repeats.
  const isOpen = row.request?.kind === 'create' && error.code !== 'market-refused';
  await transaction(async (tx) => {
    const closed = await close(tx, row, worker, {
      state: 'failed',
      errorCode: error.code,
      message: error.message.slice(0, 500),
      fix: facts.fix?.slice(0, 300) ?? null,
      field: facts.field?.slice(0, 80) ?? null,
      request: isOpen ? row.request : null,
      story: told(row, error.message),
    });
    if (closed && !isOpen)
      await tx
        .update(listing)
        .set({ remote: sql`if(remote = 'maybe', 'none', remote)` })
        .where(eq(listing.id, row.listingId));
  });
}

/**
 * Tried again later; what was sent stays with the job, so that the repeat is the same. A more urgent change that joined
 * meanwhile does not wait for a pause that was another's, unless the marketplace itself asked for it.
 * @param alarm says on screen that it does not get through, though it is tried on
 */
export async function postpone(
  row: JobRow,
  worker: string,
  milliseconds: number,
  error: Pick<NettingError, 'code' | 'message' | 'facts'>,
  { countsAsAttempt, alarm = false }: { countsAsAttempt: boolean; alarm?: boolean },
): Promise<void> {
  await transaction(async (tx) => {
    const now = await hold(tx, row);
    if (!isOwn(now, row, worker)) return;
    const isPassed = countsAsAttempt && error.facts.retryAfterMs === undefined && now.priority < row.priority;
    const pause = isPassed ? 0 : milliseconds;
    await tx
      .update(job)
      .set({
        state: 'waiting',
        leaseOwner: null,
        // What was sent stays, with what has been found out of it.
        request: row.request,
        attempts: isPassed ? 0 : countsAsAttempt ? row.attempts : Math.max(0, row.attempts - 1),
        dueAt: new Date(Date.now() + pause),
        errorCode: error.code,
        message: error.message.slice(0, 500),
        fix: error.facts.fix?.slice(0, 300) ?? null,
        story: told(row, `${error.message}; next try in ${Math.max(1, Math.round(pause / 1000))} s`),
      })
      .where(eq(job.id, row.id));
    if (alarm) await tx.update(listing).set({ problem: true }).where(eq(listing.id, row.listingId));
  });
}
