import { and, asc, eq, isNull, lt, or, sql } from 'drizzle-orm';
import { NettingError, rootWords } from '../../core/errors';
import { database, isAway, transaction } from '../../db/client';
import { foundListing, gathering, matchQuestion, type TaskRow } from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { advanceTask } from '../records/tasks/advance-task';
import { keepTask } from '../records/tasks/keep-task';
import { fetchFoundPhotos } from './fetch-found-photos';
import { openHere } from './found-filter';
import { makeThing } from './make-thing';
import { matchFound } from './match-found';
import { noteGone, readPage } from './read-page';
import { keyOfFound, keyOfItem } from './thing-keys';
import { waitOut } from './wait-out';

/** Chosen listings are read anew where that was long ago, their photos fetched, compared, and brought in. */
export type GatherTask = { gatheringId: number };
type Cursor =
  | { phase: 'read'; accounts: number[]; after: string | null; since: string }
  | { phase: 'photos' }
  | { phase: 'match' }
  | { phase: 'make'; after: number };

/** What was read longer ago may have been sold meanwhile: it is read anew. */
const freshMs = 5 * 60_000;
const photosAtOnce = 32;
const thingsAtOnce = 20;

/** Accounts whose chosen listings were read too long ago. */
async function staleAccounts(gatheringId: number): Promise<number[]> {
  const rows = await database()
    .selectDistinct({ accountId: foundListing.accountId })
    .from(foundListing)
    .where(and(openHere(gatheringId), lt(foundListing.readAt, new Date(Date.now() - freshMs))));
  return rows.map((row) => row.accountId);
}

/** The next part of it; each is kept with how far it has come. */
export const gatherStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  waitOut(task, holder, async () => {
    const { gatheringId } = task.input as GatherTask; // written by `startGathering`
    const cursor = task.cursor as Cursor | null; // written below
    const keep = (next: Cursor, done = 0) =>
      advanceTask(database(), task, holder, { cursor: next, done, finished: false, result: null });
    if (cursor === null)
      return keep({
        phase: 'read',
        accounts: await staleAccounts(gatheringId),
        after: null,
        since: new Date().toISOString(),
      });
    switch (cursor.phase) {
      case 'read': {
        const [account, ...others] = cursor.accounts;
        if (account === undefined) return keep({ phase: 'photos' });
        const { next } = await readPage(database(), account, cursor.after);
        if (next === null) await noteGone(database(), account, new Date(cursor.since));
        return keep({ ...cursor, accounts: next === null ? others : cursor.accounts, after: next });
      }
      case 'photos':
        return keep(...(await nextPhotos(gatheringId)));
      case 'match':
        await matchFound(database(), gatheringId, () => keepTask(database(), task.id, holder));
        return keep({ phase: 'make', after: 0 });
      case 'make':
        return makeNext(task, holder, cursor.after);
    }
  });

async function nextPhotos(gatheringId: number): Promise<[Cursor, number]> {
  const rows = await database()
    .select()
    .from(foundListing)
    .where(and(openHere(gatheringId), isNull(foundListing.hashes)))
    .orderBy(asc(foundListing.id))
    .limit(photosAtOnce);
  let photos = 0;
  // As many as are fetched within a moment; a listing is taken whole.
  const some = rows.filter((row) => {
    photos += row.photos.length;
    return photos <= photosAtOnce || photos === row.photos.length;
  });
  if (some.length === 0) return [{ phase: 'match' }, 0];
  await fetchFoundPhotos(some);
  return [{ phase: 'photos' }, some.length];
}

/** Things that wait for an answer: every listing that an open question is about, with all that is one with it. */
async function waitingThings(gatheringId: number): Promise<Set<number>> {
  const db = database();
  const open = await db
    .select({ a: matchQuestion.a, b: matchQuestion.b })
    .from(matchQuestion)
    .where(
      and(
        eq(matchQuestion.gatheringId, gatheringId),
        or(isNull(matchQuestion.answer), eq(matchQuestion.answer, 'later')),
      ),
    );
  if (open.length === 0) return new Set();
  const asked = new Set(open.flatMap(({ a, b }) => [a, b]));
  // Their names alone: what they say may be long, and is looked at again and again.
  const { accountId, remoteId, joinItem, thing } = foundListing;
  const rows = await db
    .select({ accountId, remoteId, joinItem, thing })
    .from(foundListing)
    .where(openHere(gatheringId));
  const waits = (row: (typeof rows)[number]) =>
    asked.has(keyOfFound(row)) || (row.joinItem !== null && asked.has(keyOfItem(row.joinItem)));
  return new Set(rows.filter(waits).flatMap((row) => row.thing ?? []));
}

/** One that cannot be brought in says why; the others go on. */
async function notMade(gatheringId: number, thing: number, error: unknown): Promise<number> {
  if (isAway(error)) throw error;
  const said = error instanceof NettingError ? error.message : `It could not be brought in: ${rootWords(error)}`;
  await database()
    .update(foundListing)
    .set({ said: said.slice(0, 300) })
    .where(and(openHere(gatheringId), eq(foundListing.thing, thing)));
  return 0;
}

/** The next things of which nothing is asked, each in a transaction of its own. */
async function makeNext(task: TaskRow, holder: string, after: number): Promise<TaskRow> {
  const { gatheringId } = task.input as GatherTask; // written by `startGathering`
  const waiting = await waitingThings(gatheringId);
  const things = await database()
    .selectDistinct({ thing: foundListing.thing })
    .from(foundListing)
    .where(and(openHere(gatheringId), sql`${foundListing.thing} > ${after}`))
    .orderBy(asc(foundListing.thing))
    // One more than is taken tells that there is more.
    .limit(thingsAtOnce + waiting.size + 1);
  const due = things.flatMap((row) => (row.thing !== null && !waiting.has(row.thing) ? [row.thing] : []));
  const some = due.slice(0, thingsAtOnce);
  const [order] = await database().select().from(gathering).where(eq(gathering.id, gatheringId));
  const accounts = new Map((await loadAccounts(database())).map((one) => [one.id, one]));
  const actor = { id: task.byId, name: task.byName };
  let listings = 0;
  for (const thing of some)
    listings += await transaction((tx) =>
      makeThing(tx, thing, { gatheringId, actor, prefer: order?.prefer ?? {}, accounts }),
    ).catch((error: unknown) => notMade(gatheringId, thing, error));
  const isOver = due.length <= some.length;
  return transaction(async (tx) => {
    if (isOver)
      await tx
        .update(gathering)
        .set({ state: waiting.size ? 'asking' : 'done' })
        .where(eq(gathering.id, gatheringId));
    return advanceTask(tx, task, holder, {
      cursor: { phase: 'make', after: some.at(-1) ?? after },
      done: listings,
      finished: isOver,
      result: { waiting: waiting.size },
    });
  });
}
