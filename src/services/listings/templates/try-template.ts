import { eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { artworkOf } from '../../../core/artwork';
import { chooseTemplate, computeListing, printTemplates, type Template, textTemplates } from '../../../core/listing';
import { diff } from '../../../core/sync';
import { fieldDiffSchema } from '../../../core/sync/diff';
import { database } from '../../../db/client';
import { listing, template } from '../../../db/schema';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { today } from '../../records/accounts/today';
import { loadItems } from '../../records/items/load-items';
import { inputOf } from '../../records/listings/compute-row';
import { checkFields, cleaned, previousOf, type TemplateInput } from './template-input';

const triedListingSchema = z.object({
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  accountId: z.number(),
  changes: z.array(fieldDiffSchema),
  /** Issues that the change would bring. */
  problems: z.array(z.string()),
});

export const triedTemplateSchema = z.object({
  looked: z.number(),
  applies: z.number(),
  changed: z.number(),
  ties: z.array(z.string()),
  more: z.boolean(),
  listings: z.array(triedListingSchema),
});
export type TriedTemplate = z.infer<typeof triedTemplateSchema>;

const mostLooked = 5_000;

const shownListings = 60;

/**
 * What a template (or its change) would do, before it is kept: every listing that is there now is computed with and
 * without it. What a person typed for one marketplace is never touched, so it never shows up here.
 */
export async function tryTemplate(id: number | null, input: TemplateInput): Promise<TriedTemplate> {
  await checkFields(input);
  const db = database();
  const accounts = await loadAccounts(db, input.accounts.length ? input.accounts : undefined);
  if (accounts.length === 0) return { looked: 0, applies: 0, changed: 0, ties: [], more: false, listings: [] };
  const [old] = id === null ? [] : await db.select().from(template).where(eq(template.id, id));
  const draft: Template = {
    id: id ?? Number.MAX_SAFE_INTEGER,
    name: input.name,
    conditions: input.conditions,
    fields: cleaned(input.fields),
    print: input.print,
    previous: await previousOf(old ?? null, input),
  };
  const rows = await db
    .select()
    .from(listing)
    .where(
      sql`${inArray(
        listing.accountId,
        accounts.map((one) => one.id),
      )} and ${listing.wanted} in ('draft', 'live')`,
    )
    .orderBy(listing.itemId)
    .limit(mostLooked + 1);
  const some = rows.slice(0, mostLooked);
  const items = new Map((await loadItems(db, [...new Set(some.map((row) => row.itemId))])).map((one) => [one.id, one]));
  const result: TriedTemplate = {
    looked: some.length,
    applies: 0,
    changed: 0,
    ties: [],
    more: rows.length > mostLooked,
    listings: [],
  };
  const ties = new Set<string>();
  for (const row of some) {
    const found = items.get(row.itemId);
    const shop = accounts.find((one) => one.id === row.accountId);
    if (!found || !shop) continue;
    const templates = [...shop.templates.filter((one) => one.id !== id), draft].sort((a, b) => a.id - b.id);
    const chosen = [textTemplates, ...(artworkOf(found) ? [printTemplates] : [])].flatMap(
      (kind) => chooseTemplate(kind(templates), found, today()) ?? [],
    );
    const isChosen = chosen.some((one) => one.template.id === draft.id);
    if (!isChosen && !shop.templates.some((one) => one.id === id)) continue;
    if (isChosen) result.applies++;
    for (const { tiedWith } of chosen) for (const name of tiedWith) ties.add(name);
    const given = inputOf(found, row, shop);
    const before = computeListing(given);
    const after = computeListing({ ...given, account: { ...shop, templates } });
    const changes = diff(before.content, after.content);
    const known = new Set(before.issues.map((issue) => issue.message));
    const problems = after.issues.map((issue) => issue.message).filter((message) => !known.has(message));
    if (changes.length === 0 && problems.length === 0) continue;
    result.changed++;
    if (result.listings.length < shownListings)
      result.listings.push({
        itemId: found.id,
        sku: found.sku,
        title: found.title,
        accountId: shop.id,
        changes,
        problems,
      });
  }
  return { ...result, ties: [...ties] };
}
