import { eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { fieldsFor } from '../../../core/field';
import { combinationWords } from '../../../core/item';
import type { Json } from '../../../core/json';
import { database } from '../../../db/client';
import { listing, run } from '../../../db/schema';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { loadCustomFields } from '../../records/items/load-custom-fields';
import { loadItems } from '../../records/items/load-items';
import { shortly } from '../many/shortly';
import { presentValue, recordedField } from '../preview/present-value';
import { runRecords } from './run-records';
import { notTakenBack } from './taken-back';

export const findRunChangesSchema = z.object({
  after: z.coerce.number().int().min(0).default(0).describe('The `next` of the page before'),
  limit: z.coerce.number().int().min(1).max(200).default(50).describe('So many items'),
});

export const runChangeSchema = z.object({
  id: z.number(),
  field: z.string(),
  accountId: z.number().nullable(),
  combination: z.string().nullable(),
  /** Before the run, what the run made of it, and what it is now, in words. */
  before: z.string(),
  made: z.string(),
  now: z.string(),
  /** As the run left it, changed since, or taken back already. */
  state: z.enum(['as-made', 'changed-since', 'taken-back']),
});

export const runChangesSchema = z.object({
  run: z.object({
    id: z.number(),
    kind: z.string(),
    title: z.string(),
    byName: z.string(),
    at: z.string(),
    itemCount: z.number(),
    undoneBy: z.number().nullable(),
    undoOf: z.number().nullable(),
  }),
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
      photo: z.string().nullable(),
      changes: z.array(runChangeSchema),
    }),
  ),
  next: z.number().nullable(),
});
export type RunChanges = z.infer<typeof runChangesSchema>;
export type RunItem = RunChanges['items'][number];

/** What a run changed, item by item: before it, by it, and now. */
export async function findRunChanges(
  runId: number,
  { after, limit }: z.infer<typeof findRunChangesSchema>,
): Promise<RunChanges> {
  const db = database();
  const [found] = await db.select().from(run).where(eq(run.id, runId));
  if (!found) throw new NettingError('not-found', 'There is no such change');
  const records = await runRecords(db, runId, after, limit);
  const ids = [...new Set(records.map((one) => one.itemId))];
  const items = await loadItems(db, ids);
  const listingIds = records.flatMap((one) => one.listingId ?? []);
  const listings = listingIds.length ? await db.select().from(listing).where(inArray(listing.id, listingIds)) : [];
  const left = new Set((await notTakenBack(db, runId, records)).map((one) => one.id));
  const catalogue = fieldsFor(await loadCustomFields(db));
  const accountIds = [...new Set(records.flatMap((one) => one.accountId ?? []))];
  const accounts = accountIds.length ? await loadAccounts(db, accountIds) : [];
  const currencyOf = (id: number | null) => accounts.find((one) => one.id === id)?.compiled.rules.currency;
  return {
    run: {
      id: found.id,
      kind: found.kind,
      title: found.title,
      byName: found.byName,
      at: found.createdAt.toISOString(),
      itemCount: found.itemCount,
      undoneBy: found.undoneBy,
      undoOf: found.undoOf,
    },
    items: items.map((item) => ({
      id: item.id,
      sku: item.sku,
      title: item.title,
      photo: item.photos[0]?.hash ?? null,
      changes: records
        .filter((one) => one.itemId === item.id)
        .flatMap((one) => {
          const field = recordedField(one, catalogue);
          if (!field) return [];
          const now = presentValue(
            item,
            listings.find((row) => row.id === one.listingId),
            one,
          );
          const row = item.variations.find((other) => other.key === one.combination);
          const text = (value: Json) => shortly(field, value, currencyOf(one.accountId));
          // Units are sums: what was sold since is no change of what the run did.
          const isAsMade = field.traits.ledger || field.same(now, one.to);
          return {
            id: one.id,
            field: field.label,
            accountId: one.accountId,
            combination: row ? combinationWords(row.values) : one.combination,
            before: text(one.from),
            made: text(one.to),
            now: text(now),
            state: !left.has(one.id)
              ? ('taken-back' as const)
              : isAsMade
                ? ('as-made' as const)
                : ('changed-since' as const),
          };
        }),
    })),
    next: ids.length < limit ? null : (ids.at(-1) ?? null),
  };
}
