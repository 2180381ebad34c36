import { sql } from 'drizzle-orm';
import { z } from 'zod';
import type { DoneChange, ItemRecord } from '../../core/change';
import { applySteps } from '../../core/edit';
import type { Field } from '../../core/field';
import { combinationWords } from '../../core/item';
import { toPlainText } from '../../core/listing';
import { database, withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { groupByItem, loadItems } from '../records/load-items';
import { selectionWhere } from '../records/selection';
import { checkSteps } from './check-steps';
import { accountNets, netAt, priceThere } from './edit-nets';
import type { Edit } from './edit-schema';
import { findEditedListings } from './edited-listings';
import { netTuple } from './net-tuple';
import { type LoadedSteps, stepContext } from './step-context';

const shownChangeSchema = z.object({
  /** The same for the same field at the same place, over all rows. */
  column: z.string(),
  label: z.string(),
  accountId: z.number().nullable(),
  /** The combination, in words. */
  combination: z.string().nullable(),
  before: z.string(),
  after: z.string(),
  /** A number, an amount, a measure: shown to the right. */
  isNumber: z.boolean(),
});
export type ShownChange = z.infer<typeof shownChangeSchema>;

export const previewRowSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  changes: z.array(shownChangeSchema),
  refused: z.string().nullable(),
  /** Net before and after, per account where it is listed; null without a price. */
  nets: z.array(
    z.object({
      accountId: z.number(),
      before: z.number().nullable(),
      after: z.number().nullable(),
      keepsOverride: z.boolean(),
    }),
  ),
});
export type PreviewRow = z.infer<typeof previewRowSchema>;

const numberKinds = ['money', 'whole', 'number', 'weight', 'length', 'priceRule'];

function shown(change: DoneChange, before: ItemRecord, { context }: LoadedSteps): ShownChange[] {
  const { item } = before;
  const { account, combination } = change.target;
  const field: Field | undefined =
    account !== undefined
      ? context.listingField(account, change.field)
      : combination !== undefined
        ? context.catalogue.combination(change.field)
        : context.catalogue.item(change.field);
  if (!field) return [];
  const currency = account === undefined ? context.currency : context.currencyOf(account);
  const text = (value: DoneChange['to']) => {
    const said = field.show(value, { currency });
    return field.kind.is === 'rich' ? toPlainText(said) : said;
  };
  const row = combination === undefined ? undefined : item.variations.find((one) => one.key === combination);
  return [
    {
      column: `${account ?? ''}/${combination === undefined ? '' : 'combination'}/${change.field}`,
      label: field.label,
      accountId: account ?? null,
      combination: row ? combinationWords(row.values) : null,
      // Where nothing was written for the account, it is what it got of the item.
      before: text(
        account !== undefined && change.from === null
          ? (context.listed(before, account, change.field) ?? null)
          : change.from,
      ),
      after: text(change.to),
      isNumber: numberKinds.includes(field.kind.is),
    },
  ];
}

/** The first rows of a change, before and after, with the net per account. */
export async function previewRows(edit: Edit, limit = 60): Promise<PreviewRow[]> {
  const db = database();
  await checkSteps(db, edit.steps);
  const [nets, loaded] = await Promise.all([accountNets(), stepContext(db)]);
  const found = await withConnection((connection) =>
    readRows<[id: number, photo: string | null]>(
      connection,
      sql`select i.id, i.main_photo from item i where ${selectionWhere(edit.selection)} order by i.id limit ${limit}`,
    ),
  );
  const ids = found.map(([id]) => id);
  const photos = new Map(found);
  const [items, listings] = await Promise.all([loadItems(db, ids), findEditedListings(db, ids)]);
  const byItem = groupByItem(listings);
  return items.map((item): PreviewRow => {
    const rows = byItem.get(item.id) ?? [];
    const overrides = new Map(rows.map((row) => [row.accountId, row.overrides]));
    const result = applySteps(edit.steps, { item, overrides }, loaded.context);
    const after = 'record' in result ? result.record : { item, overrides };
    const price = (account: number, from: typeof overrides) => {
      const own = from.get(account)?.price;
      return typeof own === 'number' ? own : null;
    };
    return {
      id: item.id,
      sku: item.sku,
      title: item.title,
      photo: photos.get(item.id) ?? null,
      changes: 'changes' in result ? result.changes.flatMap((one) => shown(one, { item, overrides }, loaded)) : [],
      refused: 'refused' in result ? result.refused : null,
      nets: rows
        .filter((row) => row.state !== 'none')
        .flatMap(({ accountId }) => {
          const net = nets.get(accountId);
          if (!net) return [];
          const at = (record: typeof after) => {
            const tuple = netTuple(record.item);
            return netAt(
              net,
              tuple,
              price(accountId, new Map(record.overrides)) ?? priceThere(net, tuple, record.item.price),
            );
          };
          return [
            {
              accountId,
              before: at({ item, overrides }),
              after: at(after),
              keepsOverride: price(accountId, overrides) !== null && after.item.price !== item.price,
            },
          ];
        }),
    };
  });
}
