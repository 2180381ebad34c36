import { and, asc, count, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, type Executor } from '../../db/client';
import {
  account,
  foundListing,
  gatheredItem,
  gathering,
  gatheringModes,
  gatheringStates,
  item,
  matchQuestion,
  task,
} from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { keyOfFound, keyOfItem } from './thing-keys';

const sideSchema = z.object({
  key: z.string(),
  /** The account, or our own inventory. */
  where: z.string(),
  title: z.string(),
  sku: z.string(),
  price: z.number().nullable(),
  currency: z.string(),
  quantity: z.number().nullable(),
  photos: z.array(z.string()),
  url: z.string().nullable(),
});
const answers = ['same', 'different', 'later'] as const;

const questionSchema = z.object({
  id: z.number(),
  a: sideSchema,
  b: sideSchema,
  score: z.number(),
  evidence: z.array(z.object({ said: z.string(), weight: z.number() })),
  answer: z.enum(answers).nullable(),
});
export type QuestionView = z.infer<typeof questionSchema>;

const headSchema = z.object({
  id: z.number(),
  title: z.string(),
  mode: z.enum(gatheringModes),
  state: z.enum(gatheringStates),
  chosen: z.number(),
  at: z.string(),
  byName: z.string(),
});

export const gatheringViewSchema = headSchema.extend({
  /** Listings that are in, items that were made, items of ours that listings were joined to. */
  broughtIn: z.number(),
  made: z.number(),
  joined: z.number(),
  /** Items in the sitting that nobody has looked through yet. */
  toLookThrough: z.number(),
  photosOpen: z.number(),
  questions: z.array(questionSchema),
  /** Questions besides those that are shown. */
  moreQuestions: z.number(),
  task: z
    .object({ id: z.number(), state: z.string(), done: z.number(), total: z.number(), message: z.string().nullable() })
    .nullable(),
  items: z.array(
    z.object({
      itemId: z.number(),
      sku: z.string(),
      title: z.string(),
      photo: z.string().nullable(),
      isNew: z.boolean(),
      quantity: z.number(),
      accounts: z.array(z.string()),
      taken: z.record(z.string(), z.string()),
      said: z.string().nullable(),
    }),
  ),
  /** What could not be brought in, or not whole. */
  faults: z.array(z.object({ title: z.string(), url: z.string(), said: z.string() })),
});
export type GatheringView = z.infer<typeof gatheringViewSchema>;

const mostShown = 200;
const mostAsked = 100;

async function sides(db: Executor, keys: readonly string[]): Promise<Map<string, z.infer<typeof sideSchema>>> {
  const found = new Map<string, z.infer<typeof sideSchema>>();
  const items = keys.filter((key) => key.startsWith('item:')).map((key) => Number(key.slice(5)));
  const remotes = keys.filter((key) => key.startsWith('remote:')).map((key) => key.split(':').slice(2).join(':'));
  if (items.length)
    for (const row of await db.select().from(item).where(inArray(item.id, items)))
      found.set(keyOfItem(row.id), {
        key: keyOfItem(row.id),
        where: 'Your inventory',
        title: row.title,
        sku: row.sku,
        price: row.price,
        currency: row.currency,
        quantity: row.quantity,
        photos: row.mainPhoto ? [`/api/photos/${row.mainPhoto}-view`] : [],
        url: `/items/${row.id}`,
      });
  if (remotes.length) {
    const rows = await db
      .select({ row: foundListing, name: account.name })
      .from(foundListing)
      .innerJoin(account, eq(account.id, foundListing.accountId))
      .where(inArray(foundListing.remoteId, remotes));
    const currencies = new Map((await loadAccounts(db)).map((one) => [one.id, one.compiled.rules.currency]));
    for (const { row, name } of rows)
      found.set(keyOfFound(row), {
        key: keyOfFound(row),
        where: name,
        title: row.title,
        sku: row.sku,
        price: row.price,
        currency: currencies.get(row.accountId) ?? '',
        quantity: row.quantity,
        photos: (row.hashes ?? []).flatMap((hash) => (hash ? [`/api/photos/${hash}-view`] : [])).slice(0, 3),
        url: row.url,
      });
  }
  return found;
}

async function questionsOf(db: Executor, id: number): Promise<{ questions: QuestionView[]; more: number }> {
  const where = eq(matchQuestion.gatheringId, id);
  const rows = await db
    .select()
    .from(matchQuestion)
    .where(where)
    .orderBy(desc(isNull(matchQuestion.answer)), desc(matchQuestion.score), asc(matchQuestion.id))
    .limit(mostAsked);
  const [all] = await db.select({ count: count() }).from(matchQuestion).where(where);
  const known = await sides(
    db,
    rows.flatMap((row) => [row.a, row.b]),
  );
  const questions = rows.flatMap((row): QuestionView[] => {
    const [a, b] = [known.get(row.a), known.get(row.b)];
    const { id: question, score, evidence, answer } = row;
    return a && b ? [{ id: question, a, b, score, evidence, answer }] : [];
  });
  return { questions, more: (all?.count ?? 0) - rows.length };
}

/** What came of a bringing in so far, and what is to be decided. */
export async function findGathering(id: number): Promise<GatheringView> {
  const db = database();
  const [head] = await db.select().from(gathering).where(eq(gathering.id, id));
  if (!head) throw new NettingError('not-found', 'There is no such bringing in');
  const here = eq(foundListing.gatheringId, id);
  const [{ questions, more }, rows, [work], [inNow], [open], faults, made] = await Promise.all([
    questionsOf(db, id),
    db
      .select({ kept: gatheredItem, sku: item.sku, title: item.title, photo: item.mainPhoto, quantity: item.quantity })
      .from(gatheredItem)
      .innerJoin(item, eq(item.id, gatheredItem.itemId))
      .where(eq(gatheredItem.gatheringId, id))
      .orderBy(asc(gatheredItem.itemId))
      .limit(mostShown),
    db
      .select()
      .from(task)
      .where(eq(task.id, head.taskId ?? 0)),
    db
      .select({ count: count() })
      .from(foundListing)
      .where(and(here, isNotNull(foundListing.itemId))),
    db
      .select({ count: count() })
      .from(foundListing)
      .where(and(here, isNull(foundListing.itemId), isNull(foundListing.hashes))),
    db
      .select({ title: foundListing.title, url: foundListing.url, said: foundListing.said })
      .from(foundListing)
      .where(and(here, isNotNull(foundListing.said)))
      .limit(mostShown),
    db
      .select({ isNew: gatheredItem.isNew, isDone: gatheredItem.isDone, count: count() })
      .from(gatheredItem)
      .where(eq(gatheredItem.gatheringId, id))
      .groupBy(gatheredItem.isNew, gatheredItem.isDone),
  ]);
  const ids = rows.map((row) => row.kept.itemId);
  const from = ids.length
    ? await db
        .select({ itemId: foundListing.itemId, name: account.name })
        .from(foundListing)
        .innerJoin(account, eq(account.id, foundListing.accountId))
        .where(and(here, inArray(foundListing.itemId, ids)))
    : [];
  const sum = (fits: (one: (typeof made)[number]) => boolean) =>
    made.filter(fits).reduce((total, one) => total + one.count, 0);
  return {
    id: head.id,
    title: head.title,
    mode: head.mode,
    state: head.state,
    chosen: head.chosen,
    at: head.at.toISOString(),
    byName: head.byName,
    broughtIn: inNow?.count ?? 0,
    made: sum((one) => one.isNew),
    joined: sum((one) => !one.isNew),
    toLookThrough: head.mode === 'one-by-one' ? sum((one) => !one.isDone) : 0,
    photosOpen: open?.count ?? 0,
    questions,
    moreQuestions: more,
    task: work
      ? { id: work.id, state: work.state, done: work.doneCount, total: work.totalCount, message: work.message }
      : null,
    items: rows.map(({ kept, sku, title, photo, quantity }) => ({
      itemId: kept.itemId,
      sku,
      title,
      photo,
      isNew: kept.isNew,
      quantity,
      accounts: from.filter((one) => one.itemId === kept.itemId).map((one) => one.name),
      taken: kept.taken,
      said: kept.said,
    })),
    faults: faults.flatMap(({ title, url, said }) => (said ? [{ title, url, said }] : [])),
  };
}

export const gatheringsSchema = z.object({ gatherings: z.array(headSchema) });

/** What was brought in lately, the newest first. */
export async function findGatherings(): Promise<z.infer<typeof gatheringsSchema>> {
  const rows = await database().select().from(gathering).orderBy(desc(gathering.id)).limit(30);
  return {
    gatherings: rows.map(({ id, title, mode, state, chosen, at, byName }) => ({
      id,
      title,
      mode,
      state,
      chosen,
      at: at.toISOString(),
      byName,
    })),
  };
}
