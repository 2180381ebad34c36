import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { brief, listingField } from '../../core/field';
import { itemSchema } from '../../core/item/item';
import { type Content, type ListingValue, titleVersions } from '../../core/listing';
import { listingValueSchema } from '../../core/listing/fields';
import { titleVersionSchema } from '../../core/listing/fit/title-versions';
import { readPhotoReference } from '../../core/photo/reference';
import type { MarketRules } from '../../core/rules';
import { knotStates } from '../../core/sync/state';
import { database } from '../../db/client';
import { listing } from '../../db/schema';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { cleanRichText } from '../records/items/clean-rich-text';
import { loadItem } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';

export const previewValueSchema = listingValueSchema.extend({
  /** The value in words, as a person there reads it. */
  shown: z.string(),
});
export type PreviewValue = z.infer<typeof previewValueSchema>;

/** What a buyer would see of it, taken from the marketplace's rules, not from its page. */
export const previewSchema = z.object({
  heading: z.string().nullable(),
  price: z.string().nullable(),
  condition: z.string().nullable(),
  note: z.string().nullable(),
  html: z.string().nullable(),
  text: z.string().nullable(),
  highlights: z.array(z.string()),
  tags: z.array(z.string()),
  hashtags: z.boolean(),
  photos: z.array(
    z.object({
      hash: z.string(),
      ratio: z.number().nullable(),
    }),
  ),
  catalogue: z.boolean(),
  facts: z.array(z.tuple([z.string(), z.string()])),
});
export type Preview = z.infer<typeof previewSchema>;

export const accountPreviewSchema = z.object({
  accountId: z.number(),
  market: z.string(),
  name: z.string(),
  state: z.enum(knotStates),
  refusal: z.string().nullable(),
  ready: z.boolean(),
  blocking: z.number(),
  template: z
    .object({
      id: z.number(),
      name: z.string(),
      tiedWith: z.array(z.string()),
    })
    .nullable(),
  values: z.array(previewValueSchema),
  titles: z.array(titleVersionSchema),
  titleMax: z.number().nullable(),
  preview: previewSchema,
});
export type AccountPreview = z.infer<typeof accountPreviewSchema>;

export const itemPreviewSchema = z.object({
  item: itemSchema,
  accounts: z.array(accountPreviewSchema),
});
export type ItemPreview = z.infer<typeof itemPreviewSchema>;

function shownValue({ field, value, origin }: ListingValue, account: LoadedAccount): string {
  const { rules } = account.compiled;
  if (origin === 'unused') return '';
  if (field === 'product')
    return Object.values(account.products).find((one) => one.id === value)?.name ?? String(value ?? '');
  return brief(listingField(field, rules)?.kind ?? { is: 'text', most: 0 }, value, { currency: rules.currency });
}

function previewOf(rules: MarketRules, content: Content, values: PreviewValue[]): Preview {
  const value = (field: string) => values.find((one) => one.field === field);
  const text = (field: string) => (typeof content[field] === 'string' ? String(content[field]) : null);
  const list = (field: string) => (Array.isArray(content[field]) ? content[field].map(String) : []);
  const description = text('description');
  const isRich = rules.description?.format === 'rich';
  const [firstLine = '', ...others] = (description ?? '').split('\n');
  const titleFirst = rules.description?.titleFirst === true;
  return {
    heading: text('title') ?? (titleFirst ? firstLine : (value('product')?.shown ?? null)),
    price: value('price')?.shown || null,
    condition: value('condition')?.shown || null,
    note: text('conditionNote'),
    html: isRich && description ? cleanRichText(description) : null,
    text: isRich ? null : titleFirst ? others.join('\n').trim() : description,
    highlights: list('highlights'),
    tags: list('tags'),
    hashtags: rules.tags?.letters === 'hashtag',
    photos: list('photos').map((reference) => {
      const { hash, shape } = readPhotoReference(reference);
      return { hash, ratio: shape ? shape[0] / shape[1] : null };
    }),
    catalogue: rules.photos.kind === 'catalogue',
    facts: values
      .filter(
        (one) =>
          (one.field.startsWith('attr.') || one.field.startsWith('extra.') || one.field === 'brand') && one.shown,
      )
      .map((one): [string, string] => [one.label, one.shown])
      .slice(0, 14),
  };
}

/** One item on every account: each value with where it comes from, and what a buyer would see of it. */
export async function previewItem(itemId: number): Promise<ItemPreview> {
  const db = database();
  const [item, accounts, rows] = await Promise.all([
    loadItem(db, itemId),
    loadAccounts(db),
    db.select().from(listing).where(eq(listing.itemId, itemId)),
  ]);
  return {
    item,
    accounts: accounts.map((account): AccountPreview => {
      const { rules } = account.compiled;
      const row = rows.find((one) => one.accountId === account.id);
      const computed = computeRow(item, row, account);
      const values = computed.values.map((value): PreviewValue => ({ ...value, shown: shownValue(value, account) }));
      const max = rules.title?.max ?? null;
      return {
        accountId: account.id,
        market: rules.market,
        name: account.name,
        state: row?.state ?? 'none',
        refusal: row?.refusal ?? null,
        ready: computed.ready,
        blocking: computed.issues.filter((issue) => issue.blocks).length,
        template: computed.template,
        values,
        titles: max === null || rules.title?.pattern ? [] : titleVersions(item, max),
        titleMax: max,
        preview: previewOf(rules, computed.content, values),
      };
    }),
  };
}
