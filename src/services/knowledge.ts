import { and, desc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { nameKey } from '../core/rules';
import { database } from '../db/client';
import { account, categoryMap, learned, marketRules } from '../db/schema';
import { loadAccounts } from './account-context';
import type { Actor } from './actor';
import { recheckListings } from './refresh-rules';

export type KnownThing = {
  id: string;
  market: string;
  kind: 'category' | 'attribute' | 'value' | 'product';
  said: string;
  /** What it stands for there, in words. */
  theirs: string;
  place: string;
  byName: string;
  at: string;
};

async function recheckMarket(market: string): Promise<void> {
  const accounts = await database().select({ id: account.id }).from(account).where(eq(account.market, market));
  for (const { id } of accounts) await recheckListings(id);
}

/** What has been learned of a marketplace: categories, names of properties, their values, products of its catalogue. */
export async function findKnowledge(market: string, limit = 500): Promise<{ known: KnownThing[] }> {
  const db = database();
  const [accounts, categories, rows] = await Promise.all([
    db.select({ id: account.id }).from(account).where(eq(account.market, market)).limit(1),
    db.select().from(categoryMap).where(eq(categoryMap.market, market)).orderBy(categoryMap.ownCategory),
    db
      .select()
      .from(learned)
      .where(eq(learned.market, market))
      .orderBy(desc(learned.at), desc(learned.id))
      .limit(limit),
  ]);
  const [shop] = await loadAccounts(
    db,
    accounts.map((one) => one.id),
  );
  const attributeName = (place: string) =>
    shop?.compiled.rules.categories.flatMap((one) => one.attributes).find((one) => one.id === place)?.label ?? place;
  return {
    known: [
      ...categories.map(
        (row): KnownThing => ({
          id: `category/${row.ownCategory}`,
          market,
          kind: 'category',
          said: row.ownCategory,
          theirs:
            shop?.compiled.categoryById.get(row.categoryId)?.path.join(' › ') ?? `${row.categoryId}, which is gone`,
          place: '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
      ...rows.map(
        (row): KnownThing => ({
          id: `learned/${row.id}`,
          market,
          kind: row.kind,
          said: row.said.replace(/^(code|name):/, ''),
          theirs: row.kind === 'attribute' ? attributeName(row.place) : (row.detail?.name ?? row.theirs),
          place: row.kind === 'value' ? attributeName(row.place) : '',
          byName: row.byName,
          at: row.at.toISOString(),
        }),
      ),
    ],
  };
}

export const learnSchema = z
  .object({
    market: z.string().min(1).max(40),
    kind: z.enum(['attribute', 'value']),
    /** Their attribute. */
    attribute: z.string().min(1).max(60),
    /** Our attribute's name, or our value. */
    said: z.string().trim().min(1).max(190),
    /** Their value; not needed for names. */
    theirs: z.string().max(190).default(''),
  })
  .strict();

/** Matches one of our names or values with one of theirs, for every item that says the same. */
export async function learn(actor: Actor, input: z.infer<typeof learnSchema>): Promise<void> {
  const { market, kind, attribute } = input;
  const said = kind === 'value' ? nameKey(input.said) : input.said;
  const row = { market, kind, place: attribute, said, theirs: input.theirs, byName: actor.name, at: new Date() };
  await database()
    .insert(learned)
    .values({ ...row, detail: null })
    .onDuplicateKeyUpdate({ set: { theirs: row.theirs, byName: row.byName, at: row.at } });
  await recheckMarket(market);
}

export const forgetSchema = z.object({ market: z.string().min(1).max(40), id: z.string().min(1).max(200) }).strict();

/** Takes back something that was learned; what was computed with it is computed anew. */
export async function forget(input: z.infer<typeof forgetSchema>): Promise<void> {
  const [kind, ...rest] = input.id.split('/');
  const key = rest.join('/');
  const db = database();
  const [{ affectedRows }] =
    kind === 'category'
      ? await db.delete(categoryMap).where(and(eq(categoryMap.market, input.market), eq(categoryMap.ownCategory, key)))
      : await db.delete(learned).where(and(eq(learned.market, input.market), eq(learned.id, Number(key) || 0)));
  if (!affectedRows) throw new NettingError('not-found', 'This was forgotten already');
  await recheckMarket(input.market);
}

/** Keeps catalogue products under what identifies the thing. */
export async function keepProducts(
  actor: Actor,
  market: string,
  found: { key: string; id: string; name: string; categoryId: string | null }[],
): Promise<void> {
  if (found.length === 0) return;
  const db = database();
  const at = new Date();
  await db.delete(learned).where(
    and(
      eq(learned.market, market),
      eq(learned.kind, 'product'),
      inArray(
        learned.said,
        found.map((one) => one.key),
      ),
    ),
  );
  await db.insert(learned).values(
    found.map(({ key, id, name, categoryId }) => ({
      market,
      kind: 'product' as const,
      place: '',
      said: key,
      theirs: id,
      detail: { name, categoryId },
      byName: actor.name,
      at,
    })),
  );
}

/** Versions of a marketplace's rules that were read, newest first. */
export const ruleVersions = (market: string) =>
  database()
    .select({ version: marketRules.version, readAt: marketRules.readAt })
    .from(marketRules)
    .where(eq(marketRules.market, market))
    .orderBy(desc(marketRules.version));
