import { desc, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import {
  chooseTemplate,
  computeListing,
  type Template,
  templateConditionSchema,
  templateFault,
  templateFieldsSchema,
} from '../core/listing';
import { difference, type FieldDifference } from '../core/sync';
import { database, isDuplicate } from '../db/client';
import { item, listing, template } from '../db/schema';
import { loadAccounts } from './account-context';
import type { Actor } from './actor';
import { loadItems } from './load-items';
import { inputOf } from './refresh-listings';
import { recheckListings } from './refresh-rules';
import { cleanRichText } from './rich-text';

export const templateSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    /** No accounts: for all of them. */
    accounts: z.array(z.number().int().positive()).max(50).default([]),
    conditions: z.array(templateConditionSchema).max(12).default([]),
    fields: templateFieldsSchema,
    /** A change meant for new items only leaves those that exist as they are. */
    for: z.enum(['all', 'new']).default('all'),
  })
  .strict();
export type TemplateInput = z.infer<typeof templateSchema>;

export type TemplateView = Template & { accounts: number[]; version: number; byName: string; updatedAt: string };

export async function findTemplates(): Promise<{ templates: TemplateView[] }> {
  const rows = await database().select().from(template).orderBy(template.id);
  return { templates: rows.map(({ updatedAt, ...row }) => ({ ...row, updatedAt: updatedAt.toISOString() })) };
}

function checkFields(fields: Record<string, string>): void {
  for (const [field, text] of Object.entries(fields)) {
    const fault = templateFault(text);
    if (fault) throw new NettingError('invalid', `This cannot be read: ${fault}`, { field: `fields.${field}` });
  }
}

/** The description is rich text like any other: cleaned before it is kept. */
const cleaned = (fields: Record<string, string>): Record<string, string> =>
  fields.description ? { ...fields, description: cleanRichText(fields.description) } : fields;

async function previousOf(
  old: { fields: Record<string, string> } | null,
  input: TemplateInput,
): Promise<Template['previous']> {
  if (input.for === 'all') return null;
  const [last] = await database().select({ id: item.id }).from(item).orderBy(desc(item.id)).limit(1);
  return { untilItem: last?.id ?? 0, fields: old?.fields ?? {} };
}

async function recheckAll(accounts: number[]): Promise<void> {
  const loaded = await loadAccounts(database(), accounts.length ? accounts : undefined);
  for (const { id } of loaded) await recheckListings(id);
}

/** Makes a template, or changes one; every listing that it may touch is computed anew. */
export async function saveTemplate(actor: Actor, id: number | null, input: TemplateInput): Promise<{ id: number }> {
  checkFields(input.fields);
  const db = database();
  const [old] = id === null ? [] : await db.select().from(template).where(eq(template.id, id));
  if (id !== null && !old) throw new NettingError('not-found', 'There is no such template');
  const { name, accounts, conditions } = input;
  const fields = cleaned(input.fields);
  const row = {
    name,
    accounts,
    conditions,
    fields,
    previous: await previousOf(old ?? null, input),
    byName: actor.name,
    updatedAt: new Date(),
  };
  try {
    if (old)
      await db
        .update(template)
        .set({ ...row, version: old.version + 1 })
        .where(eq(template.id, old.id));
    else await db.insert(template).values(row);
  } catch (error) {
    if (isDuplicate(error))
      throw new NettingError('conflict', 'A template of this name exists already', { field: 'name' });
    throw error;
  }
  const [saved] = await db.select({ id: template.id }).from(template).where(eq(template.name, name));
  // Listings on accounts that neither the template of before nor that of now names stay as they are.
  const named = old ? [old.accounts, accounts] : [accounts];
  await recheckAll(named.some((one) => one.length === 0) ? [] : [...new Set(named.flat())]);
  return { id: saved?.id ?? 0 };
}

export async function removeTemplate(id: number): Promise<void> {
  const [old] = await database().select().from(template).where(eq(template.id, id));
  if (!old) throw new NettingError('not-found', 'There is no such template');
  await database().delete(template).where(eq(template.id, id));
  await recheckAll(old.accounts);
}

export type TriedListing = {
  itemId: number;
  sku: string;
  title: string;
  accountId: number;
  changes: FieldDifference[];
  /** Issues that the change would bring. */
  problems: string[];
};
export type TriedTemplate = {
  looked: number;
  applies: number;
  changed: number;
  ties: string[];
  more: boolean;
  listings: TriedListing[];
};

const mostLooked = 5_000;
const shownListings = 60;

/**
 * What a template (or its change) would do, before it is kept: every listing that is there now is computed with and
 * without it. What a person typed for one marketplace is never touched, so it never shows up here.
 */
export async function tryTemplate(id: number | null, input: TemplateInput): Promise<TriedTemplate> {
  checkFields(input.fields);
  const db = database();
  const accounts = await loadAccounts(db, input.accounts.length ? input.accounts : undefined);
  if (accounts.length === 0) return { looked: 0, applies: 0, changed: 0, ties: [], more: false, listings: [] };
  const [old] = id === null ? [] : await db.select().from(template).where(eq(template.id, id));
  const draft: Template = {
    id: id ?? Number.MAX_SAFE_INTEGER,
    name: input.name,
    conditions: input.conditions,
    fields: cleaned(input.fields),
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
    const chosen = chooseTemplate(templates, found);
    if (chosen?.template.id !== draft.id && !shop.templates.some((one) => one.id === id)) continue;
    if (chosen?.template.id === draft.id) result.applies++;
    for (const name of chosen?.tiedWith ?? []) ties.add(name);
    const given = inputOf(found, row, shop);
    const before = computeListing(given);
    const after = computeListing({ ...given, account: { ...shop, templates } });
    const changes = difference(before.content, after.content);
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
