import { eq } from 'drizzle-orm';
import { ZodError } from 'zod';
import { isTransient, NettingError, rootWords } from '../core/errors';
import { listingField } from '../core/field/listing-fields';
import type { Content } from '../core/listing';
import { alarmAfter, driftOf, notTakenFields, planListing, priorities, retryPause } from '../core/sync';
import { database, isAway } from '../db/client';
import { account as accountTable, listing } from '../db/schema';
import { connectorOf, LostLease } from '../markets';
import { loadItem } from '../services/records/items/load-items';
import { computeRow } from '../services/records/listings/compute-row';
import type { JobRow } from './claim';
import { clipIdOf } from './clip';
import { create, findMade, made, openCreate, switchedOffId, Unsettled } from './create';
import { givePlace, takePlace } from './new-listings';
import { finishFailed } from './outcome/finish-failed';
import { finishGone } from './outcome/finish-gone';
import { finishNothing } from './outcome/finish-nothing';
import { finishSent } from './outcome/finish-sent';
import { notTaken } from './outcome/not-taken';
import { postpone } from './outcome/postpone';
import type { Sent } from './outcome/sent';
import { storeEnded } from './outcome/store-ended';
import { storeTaken } from './outcome/store-taken';
import { freeze, hashesOf, type Lane, type ListingRow, namesPhotos, photoIds } from './prepare';
import { endForRenewal } from './renew';

/** Fields that both sides have changed and nobody has decided on. */
function disputedFields(stored: ListingRow, wanted: Content): string[] {
  const { base, sent, seen } = stored;
  if (!stored.drifted || !base || !sent || !seen) return [];
  return driftOf({ base, wanted, sent, seen }, {}).map((one) => one.field);
}

/**
 * What was sent, with only these fields as they are wanted: some marketplaces take several fields as one, and what is held
 * back must not go along with its neighbour.
 */
function withOnly(sent: Content, wanted: Content, fields: readonly string[]): Content {
  const content = { ...sent };
  for (const field of fields) {
    const value = wanted[field];
    if (value === undefined) delete content[field];
    else content[field] = value;
  }
  return content;
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
  const open = stored.remote === 'maybe' ? await openCreate(row, computed.content) : null;
  const action = planListing(stored, computed, stored.sent);
  if (row.kind === 'renew' && stored.remote === 'live' && stored.wanted === 'live' && action.kind !== 'end') {
    if (!(await endForRenewal(lane, connector, row, stored, computed))) return;
    return carryOut(lane, row);
  }

  // A create that may have got through is settled before anything else, also when it is no longer wanted.
  if (open && action.kind !== 'create') {
    const remote = await findMade(lane, connector, open, stored);
    if (remote) {
      return finishSent(row, worker, item.id, { ...made(open.request, remote), earlier: true });
    }
    // It was not made. What is tried from here on is no repeat of it.
    row.request = null;
  }
  switch (action.kind) {
    case 'nothing':
      return finishNothing(row, worker, item.id, action.why, action.unwanted);
    case 'not-ready': {
      const issue = action.issues.find((one) => one.blocks);
      return finishFailed(
        row,
        worker,
        new NettingError('not-ready', issue?.message ?? 'It is not ready', {
          field: issue?.field,
          fix: issue?.fix.label,
        }),
      );
    }
    case 'create': {
      const again = open ? undefined : switchedOffId(connector, stored);
      const pause = open || again ? null : await takePlace(account, row.id);
      if (pause)
        return postpone(row, worker, pause.ms, new NettingError('market-busy', pause.why), { countsAsAttempt: false });
      const sent = await create(lane, connector, row, stored, computed.content, open).catch(async (error: unknown) => {
        const isGone = error instanceof NettingError && (error.code === 'not-found' || error.code === 'market-blocked');
        if (!row.request?.switchesOn || !isGone) throw error;
        return null;
      });
      if (!sent) {
        // It was deleted there: its number is kept in the history, and it is made anew.
        await storeEnded(row, worker, 'made-again');
        return carryOut(lane, row);
      }
      return finishSent(row, worker, item.id, { ...sent, outcome: row.kind === 'renew' ? 'renewed' : 'created' });
    }
    case 'update': {
      // What they changed as well is not overwritten unseen: a person chooses first.
      const disputed = disputedFields(stored, computed.content);
      const { only } = row;
      // What was only saved waits for a person. Of what is not known there it is not known either, so that it always goes.
      const isMeant = (field: string) => !only || only.includes(field) || stored.sent?.[field] === undefined;
      const meant = action.changes.map((change) => change.field).filter(isMeant);
      if (meant.length === 0) return finishNothing(row, worker, item.id, 'Nothing of what was to be sent differs');
      const fields = meant.filter((field) => !disputed.includes(field));
      if (fields.length === 0)
        return finishNothing(row, worker, item.id, 'It was changed on both sides: choose what shall hold');
      const content = withOnly(stored.sent ?? {}, computed.content, fields);
      const ids = namesPhotos(content, fields) ? await photoIds(lane, connector, hashesOf(content)) : [];
      const clipId = fields.includes('clip') ? await clipIdOf(lane, connector, row, content) : undefined;
      const { key } = await freeze(lane, row, {
        kind: 'update',
        content,
        fields,
        photoIds: ids,
        clipId,
        firstSentAt: new Date().toISOString(),
      });
      const remote = await connector
        .change(
          lane.session,
          stored.remoteId ?? '',
          { content, photoIds: ids, clipId, idempotencyKey: key, before: stored.sent ?? {} },
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
      const left = notTakenFields(fields, computed.content, row.request?.known?.base ?? {}, remote.content);
      const taken = fields.filter((field) => !left.includes(field));
      const sent: Sent = {
        outcome: 'changed',
        fields: taken,
        shown: [...new Set([...taken, ...connector.shownWith(taken, Object.keys(remote.content))])].filter(
          (field) => !left.includes(field),
        ),
        content: computed.content,
        remote,
      };
      if (left.length === 0) return finishSent(row, worker, item.id, sent);
      await storeTaken(row, worker, sent);
      const names = left.map((field) => (listingField(field)?.label ?? field).toLowerCase()).join(', ');
      throw new NettingError('market-unreachable', `${connector.name} answered, and left ${names} as it was`, {
        field: left[0],
        fix: 'Look at the listing there',
      });
    }
    case 'end': {
      const { key } = await freeze(lane, row, {
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

/** What a marketplace may take back by itself, such as an open offer, stands in the way of an end for a while only. */
const passes = (error: NettingError, urgent: boolean) =>
  isTransient(error.code) || (urgent && error.code === 'market-blocked');

/** The fault of an answer, or of our own house, in words. The database's being away is nobody's fault: it comes back. */
function faultOf(lane: Lane, caught: unknown): NettingError {
  if (caught instanceof NettingError) return caught;
  if (isAway(caught)) throw caught;
  if (caught instanceof ZodError)
    return new NettingError(
      'market-unreachable',
      `${lane.account.compiled.rules.name} gave an answer that does not fit its own description`,
    );
  return new NettingError('unexpected', `It could not be carried out: ${rootWords(caught)}`, {
    fix: 'Look at what it names, then try again',
  });
}

/** One job from claim to result; every failure ends in a reason or a next time, never in silence. */
export async function runJob(lane: Lane, row: JobRow): Promise<void> {
  const urgent = row.priority <= priorities.quantity;
  const before = row.request;
  try {
    await carryOut(lane, row);
    givePlace(lane.account.id, row.id);
  } catch (caught) {
    // Somebody else goes on with it, and finds what was sent with the job.
    if (caught instanceof LostLease) return;
    if (caught instanceof Unsettled)
      return postpone(row, lane.worker, caught.waitMs, new NettingError('market-unreachable', caught.message), {
        countsAsAttempt: false,
      });
    const error = faultOf(lane, caught);
    const later = (ms: number, more: { countsAsAttempt: boolean; alarm?: boolean } = { countsAsAttempt: false }) =>
      postpone(row, lane.worker, ms, error, more);
    // Silence leaves open whether it was made, or taken; every other answer says that it was not.
    if (error.code !== 'market-unreachable' && error.code !== 'unexpected') {
      givePlace(lane.account.id, row.id);
      await notTaken(row, lane.worker, before);
    } else if (row.request?.kind === 'create') row.request = { ...row.request, openSince: new Date().toISOString() };
    if (error.code === 'market-locked') {
      const pause = error.facts.retryAfterMs ?? 300_000;
      await database()
        .update(accountTable)
        .set({ lockedUntil: new Date(Date.now() + pause), lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return later(pause);
    }
    if (error.code === 'market-auth') {
      await database()
        .update(accountTable)
        .set({ state: 'reconnect', lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return later(30_000);
    }
    if (error.code === 'market-warned') {
      const pause = error.facts.retryAfterMs ?? 3_600_000;
      await database()
        .update(accountTable)
        .set({ warnedUntil: new Date(Date.now() + pause), lastError: error.message.slice(0, 300) })
        .where(eq(accountTable.id, lane.account.id));
      return later(pause);
    }
    // Too many requests is the marketplace's pace, not a failed attempt.
    if (error.code === 'market-busy') return later(error.facts.retryAfterMs ?? 2_000);
    const mayPass = error.code === 'unexpected' || passes(error, urgent);
    const pause = mayPass ? retryPause(row.attempts, Math.random(), error.facts.retryAfterMs, urgent) : null;
    if (pause === null) return finishFailed(row, lane.worker, error);
    return later(pause, {
      countsAsAttempt: true,
      alarm: urgent && (row.attempts >= alarmAfter || error.code === 'market-blocked'),
    });
  }
}
