import { and, eq, inArray, isNull, like, ne, or, type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { likeText } from '../../db/like';
import { foundListing, foundStates } from '../../db/schema';

/** What of an account's listings is meant. */
export const foundFilterSchema = z.object({
  account: z.coerce.number().int(),
  state: z.enum(foundStates).optional(),
  section: z.string().max(60).optional(),
  q: z.string().trim().max(80).optional(),
  /** Those that are in no item yet, or those that are. */
  only: z.enum(['open', 'in']).optional(),
});
export type FoundFilter = z.infer<typeof foundFilterSchema>;

/** It is linked with an item of ours; of what is not live there: it was brought into one. */
export const isIn: SQL = sql`(exists (select 1 from listing l where l.account_id = ${foundListing.accountId} and l.remote_id = ${foundListing.remoteId}) or (${foundListing.itemId} is not null and ${foundListing.state} not in ('live', 'review')))`;

/** Another bringing in is at it, or waits for an answer about it. */
export const isWaiting: SQL = sql`(${foundListing.itemId} is null and exists (select 1 from gathering g where g.id = ${foundListing.gatheringId} and g.state <> 'done'))`;

export const foundWhere = ({ account, state, section, q, only }: FoundFilter): SQL | undefined =>
  and(
    eq(foundListing.accountId, account),
    ne(foundListing.state, 'gone'),
    state ? eq(foundListing.state, state) : undefined,
    section ? eq(foundListing.section, section) : undefined,
    ...(q ?? '')
      .split(/\s+/)
      .filter(Boolean)
      .map((word) =>
        or(
          like(foundListing.title, `%${likeText(word)}%`),
          like(foundListing.sku, `%${likeText(word)}%`),
          like(foundListing.remoteId, `%${likeText(word)}%`),
        ),
      ),
    only === 'open' ? sql`not ${isIn} and not ${isWaiting}` : only === 'in' ? isIn : undefined,
  );

/** Chosen for this bringing in, and in no item yet. */
export const openHere = (gatheringId: number): SQL | undefined =>
  and(eq(foundListing.gatheringId, gatheringId), isNull(foundListing.itemId), ne(foundListing.state, 'gone'));

/** All of these, all of a filter, or all of a filter without some. */
export const foundChoiceSchema = z.union([
  z.object({ ids: z.array(z.number().int().positive()).min(1, 'Choose at least one').max(20_000) }).strict(),
  z
    .object({ filter: foundFilterSchema, without: z.array(z.number().int().positive()).max(20_000).default([]) })
    .strict(),
]);
export type FoundChoice = z.infer<typeof foundChoiceSchema>;

/** What can be brought in of a choice: nothing that is in already, nor what another bringing in is at. */
export const choiceWhere = (choice: FoundChoice): SQL | undefined =>
  and(
    'ids' in choice ? inArray(foundListing.id, choice.ids) : foundWhere(choice.filter),
    'ids' in choice || choice.without.length === 0 ? undefined : sql`${foundListing.id} not in ${choice.without}`,
    sql`not ${isIn}`,
    or(isNull(foundListing.gatheringId), sql`not ${isWaiting}`),
  );
