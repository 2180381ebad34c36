import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { ZodError } from 'zod';
import { isTransient, NettingError } from '../core/errors';
import type { Content } from '../core/listing';
import { driftOf, fullPace, paceOn, planListing, retryPause, waitForNew } from '../core/sync';
import { database } from '../db/client';
import { account as accountTable, job, listing, remotePhoto } from '../db/schema';
import type { FrozenRequest } from '../db/schema/work';
import { type Connector, connectorOf, type RemoteListing, type Session } from '../markets';
import { photoFor } from '../photos/shaped';
import type { LoadedAccount } from '../services/account-context';
import { rowsOf } from '../services/find-items';
import { loadItem } from '../services/load-items';
import { computeRow } from '../services/refresh-listings';
import type { JobRow } from './claim';
import { finishFailed, finishGone, finishNothing, finishSent, postpone, type Sent, storeEnded, told } from './finish';

/** An account under way: urgent work speaks through a session of its own, whose requests go first. */
export type Lane = { account: LoadedAccount; session: Session; worker: string };
type ListingRow = typeof listing.$inferSelect;

const keyHours = 23;

/** The marketplace's numbers of these photos; those it does not have yet are uploaded first. */
async function photoIds(lane: Lane, connector: Connector, hashes: string[]): Promise<string[]> {
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

const hashesOf = (content: Content): string[] => (Array.isArray(content.photos) ? content.photos.map(String) : []);

/** Keeps what is about to be sent with the job, so that a repeat after a crash is the same and carries the same key. */
async function freeze(row: JobRow, request: FrozenRequest): Promise<{ key: string }> {
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

/** How long the next new listing has to wait, and why. Listings that were renewed count, too. */
async function pauseForNew({ row, compiled }: LoadedAccount): Promise<{ ms: number; why: string } | null> {
  const now = new Date();
  if (row.warnedUntil && row.warnedUntil > now)
    return {
      ms: row.warnedUntil.getTime() - now.getTime(),
      why: `${compiled.rules.name} warned of too many new listings`,
    };
  const [made] = rowsOf<{ count: number; last: string | null }>(
    await database().execute(
      sql`select count(*) as count, date_format(max(live_since), '%Y-%m-%dT%H:%i:%s.%fZ') as last from listing where account_id = ${row.id} and live_since >= utc_date()`,
    ),
  );
  const pace = paceOn(compiled.rules.pacing, row.ownPace ?? fullPace, now);
  const last = made?.last ? new Date(made.last) : null;
  const ms = waitForNew(pace, { today: made?.count ?? 0, last }, now);
  if (ms === 0) return null;
  const full = (made?.count ?? 0) >= pace.newToday;
  return { ms, why: full ? `${pace.newToday} new listings a day are reached` : 'New listings are spread over the day' };
}

/**
 * An earlier try may have got through. With a key that is honoured and young enough the same request is simply
 * repeated; else the listing is looked for by its stock number, and taken over when it is there.
 */
async function repeatCreate(
  lane: Lane,
  connector: Connector,
  key: string | null,
  frozen: FrozenRequest,
  stored: ListingRow,
): Promise<RemoteListing | null> {
  const young = Date.now() - Date.parse(frozen.firstSentAt) < keyHours * 3_600_000;
  if (connector.honoursIdempotencyKey && young && key) {
    return connector.create(lane.session, { content: frozen.content, photoIds: frozen.photoIds, idempotencyKey: key });
  }
  const found = await connector.findLive(lane.session, String(frozen.content.sku));
  const taken = await database()
    .select({ remoteId: listing.remoteId })
    .from(listing)
    .where(
      and(
        eq(listing.accountId, lane.account.id),
        sql`${listing.id} <> ${stored.id}`,
        inArray(listing.remoteId, ['', ...found.map((one) => one.remoteId)]),
      ),
    );
  return found.find((one) => !taken.some((other) => other.remoteId === one.remoteId)) ?? null;
}

/** A create of this listing that was sent and never answered: of this job, or of an earlier one that gave up. */
async function openCreate(row: JobRow): Promise<{ request: FrozenRequest; key: string | null } | null> {
  if (row.request?.kind === 'create') return { request: row.request, key: row.idempotencyKey };
  const [earlier] = await database()
    .select({ request: job.request, key: job.idempotencyKey })
    .from(job)
    .where(
      and(
        eq(job.listingId, row.listingId),
        inArray(job.state, ['failed', 'skipped']),
        sql`json_value(${job.request}, '$.kind') = 'create'`,
        sql`${job.id} > coalesce((select max(d.id) from job d where d.listing_id = ${row.listingId} and d.state = 'done' and d.outcome = 'created'), 0)`,
      ),
    )
    .orderBy(desc(job.id))
    .limit(1);
  return earlier?.request ? { request: earlier.request, key: earlier.key } : null;
}

async function create(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  stored: ListingRow,
  content: Content,
  open: Awaited<ReturnType<typeof openCreate>>,
): Promise<Sent> {
  if (open) {
    const repeated = await repeatCreate(lane, connector, open.key, open.request, stored);
    if (repeated) return { outcome: 'created', content: open.request.content, remote: repeated, earlier: true };
  }
  const ids = await photoIds(lane, connector, hashesOf(content));
  const { key } = await freeze(row, {
    kind: 'create',
    content,
    fields: [],
    photoIds: ids,
    firstSentAt: new Date().toISOString(),
  });
  return {
    outcome: 'created',
    content,
    remote: await connector.create(lane.session, { content, photoIds: ids, idempotencyKey: key }),
  };
}

/** Fields that both sides have changed and nobody has decided on. */
function disputedFields(stored: ListingRow, wanted: Content): string[] {
  const { base, sent, seen } = stored;
  if (!stored.drifted || !base || !sent || !seen) return [];
  return driftOf({ base, wanted, sent, seen }, {}).map((one) => one.field);
}

/**
 * The first half of a renewal. Nothing is ended that could not be made anew right away.
 * @returns whether it is ended and its second half may begin; else the job has been closed or put off
 */
async function endForRenewal(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  stored: ListingRow,
  computed: ReturnType<typeof computeRow>,
): Promise<boolean> {
  const { worker, account } = lane;
  const fresh = planListing({ wanted: 'live', remote: 'none' }, computed, null);
  if (fresh.kind !== 'create') {
    const issue = computed.issues.find((one) => one.blocks);
    const why = `It could not be made anew, so it stays: ${issue?.message ?? 'it is not ready'}`;
    await finishFailed(
      row,
      worker,
      new NettingError('not-ready', why, { field: issue?.field, mend: issue?.mend.label }),
    );
    return false;
  }
  const pause = await pauseForNew(account);
  if (pause) {
    await postpone(row, worker, pause.ms, { code: 'market-busy', message: pause.why }, false);
    return false;
  }
  const remoteId = stored.remoteId ?? '';
  const now = await connector.read(lane.session, remoteId);
  if (now.state === 'sold') {
    await finishGone(row, worker, stored.itemId, 'sold');
    return false;
  }
  if (now.state === 'live' && now.offersOpen > 0) {
    const offers = `${now.offersOpen} open ${now.offersOpen === 1 ? 'offer' : 'offers'}`;
    throw new NettingError('market-blocked', `${account.compiled.rules.name}: ${offers} there, so it is not ended`, {
      mend: 'Settle the offers on the marketplace, then try again',
    });
  }
  if (now.state === 'live') {
    const { key } = await freeze(row, {
      kind: 'end',
      content: {},
      fields: [],
      photoIds: [],
      firstSentAt: new Date().toISOString(),
    });
    await connector.end(lane.session, remoteId, key);
  }
  await storeEnded(row, 'renewed');
  return true;
}

/** Does what the plan says for one job's listing and stores what came of it. */
async function carryOut(lane: Lane, row: JobRow): Promise<void> {
  const db = database();
  const { account, worker } = lane;
  const connector = connectorOf(account.row.market);
  const [stored] = await db.select().from(listing).where(eq(listing.id, row.listingId));
  if (!stored) return finishFailed(row, worker, new NettingError('not-found', 'The listing is gone'));
  const item = await loadItem(db, stored.itemId);
  const computed = computeRow(item, stored, account);
  const open = stored.remote === 'live' || stored.remote === 'review' ? null : await openCreate(row);
  const action = planListing(stored, computed, stored.sent);
  if (row.kind === 'renew' && stored.remote === 'live' && stored.wanted === 'live' && action.kind !== 'end') {
    if (!(await endForRenewal(lane, connector, row, stored, computed))) return;
    return carryOut(lane, row);
  }

  // A create that may have got through is settled before anything else, also when it is no longer wanted.
  if (open && action.kind !== 'create') {
    const [remote] = await connector.findLive(lane.session, String(open.request.content.sku));
    if (remote) {
      return finishSent(row, worker, item.id, {
        outcome: 'created',
        content: open.request.content,
        remote,
        earlier: true,
      });
    }
  }
  switch (action.kind) {
    case 'nothing':
      return finishNothing(row, worker, item.id, action.why);
    case 'not-ready': {
      const issue = action.issues.find((one) => one.blocks);
      return finishFailed(
        row,
        worker,
        new NettingError('not-ready', issue?.message ?? 'It is not ready', {
          field: issue?.field,
          mend: issue?.mend.label,
        }),
      );
    }
    case 'create': {
      const pause = open ? null : await pauseForNew(account);
      if (pause) return postpone(row, worker, pause.ms, { code: 'market-busy', message: pause.why }, false);
      const sent = await create(lane, connector, row, stored, computed.content, open);
      return finishSent(row, worker, item.id, { ...sent, outcome: row.kind === 'renew' ? 'renewed' : 'created' });
    }
    case 'update': {
      // What they changed as well is not overwritten unseen: a person chooses first.
      const disputed = disputedFields(stored, computed.content);
      const fields = action.changes.map((change) => change.field).filter((field) => !disputed.includes(field));
      if (fields.length === 0)
        return finishNothing(row, worker, item.id, 'It was changed on both sides: choose what shall hold');
      const ids = fields.includes('photos') ? await photoIds(lane, connector, hashesOf(computed.content)) : [];
      const { key } = await freeze(row, {
        kind: 'update',
        content: computed.content,
        fields,
        photoIds: ids,
        firstSentAt: new Date().toISOString(),
      });
      const remote = await connector
        .change(
          lane.session,
          stored.remoteId ?? '',
          { content: computed.content, photoIds: ids, idempotencyKey: key },
          fields,
        )
        .catch(async (error: unknown) => {
          if (!(error instanceof NettingError) || (error.code !== 'market-blocked' && error.code !== 'not-found'))
            throw error;
          const now =
            error.code === 'not-found' ? 'gone' : (await connector.read(lane.session, stored.remoteId ?? '')).state;
          if (now === 'live' || now === 'review') throw error;
          return now;
        });
      if (typeof remote === 'string') return finishGone(row, worker, item.id, remote);
      return finishSent(row, worker, item.id, {
        outcome: 'changed',
        fields,
        shown: [...new Set([...fields, ...connector.shownWith(fields, Object.keys(remote.content))])],
        content: computed.content,
        remote,
      });
    }
    case 'end': {
      const { key } = await freeze(row, {
        kind: 'end',
        content: {},
        fields: [],
        photoIds: [],
        firstSentAt: new Date().toISOString(),
      });
      const remote = await connector.end(lane.session, stored.remoteId ?? '', key);
      return finishSent(row, worker, item.id, { outcome: 'ended', content: stored.sent ?? {}, remote });
    }
  }
}

/** One job from claim to result; every failure ends in a reason or a next time, never in silence. */
export async function runJob(lane: Lane, row: JobRow): Promise<void> {
  try {
    await carryOut(lane, row);
  } catch (caught) {
    const error =
      caught instanceof ZodError
        ? new NettingError(
            'market-unreachable',
            `${lane.account.compiled.rules.name} gave an answer that does not fit its own description`,
          )
        : caught;
    if (!(error instanceof NettingError)) throw error;
    if (error.code === 'market-locked') {
      const pause = error.facts.retryAfterMs ?? 300_000;
      await database()
        .update(accountTable)
        .set({ lockedUntil: new Date(Date.now() + pause), lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return postpone(row, lane.worker, pause, error, false);
    }
    if (error.code === 'market-auth') {
      await database()
        .update(accountTable)
        .set({ state: 'reconnect', lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return postpone(row, lane.worker, 30_000, error, false);
    }
    if (error.code === 'market-warned') {
      const pause = error.facts.retryAfterMs ?? 3_600_000;
      await database()
        .update(accountTable)
        .set({ warnedUntil: new Date(Date.now() + pause), lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return postpone(row, lane.worker, pause, error, false);
    }
    // Too many requests is the marketplace's pace, not a failed attempt.
    if (error.code === 'market-busy')
      return postpone(row, lane.worker, error.facts.retryAfterMs ?? 2_000, error, false);
    const pause = isTransient(error.code) ? retryPause(row.attempts, Math.random(), error.facts.retryAfterMs) : null;
    if (pause === null) return finishFailed(row, lane.worker, error);
    return postpone(row, lane.worker, pause, error, true);
  }
}
