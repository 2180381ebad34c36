import { sql } from 'drizzle-orm';
import { z } from 'zod';
import type { DoneChange, ItemRecord } from '../../../core/change';
import { applySteps } from '../../../core/edit';
import type { Field } from '../../../core/field';
import { combinationWords } from '../../../core/item';
import type { Json } from '../../../core/json';
import { computeListing, type Overrides, toPlainText } from '../../../core/listing';
import { netOfContent } from '../../../core/listing/net';
import { diff } from '../../../core/sync';
import { database, withConnection } from '../../../db/client';
import { readRows } from '../../../db/raw';
import { itemRecord } from '../../records/items/item-record';
import { groupByItem, loadItems } from '../../records/items/load-items';
import { selectionWhere } from '../../records/items/selection';
import { type AccountNet, accountNets, netsAt, priceThere } from '../../records/listings/account-nets';
import { inputOf } from '../../records/listings/compute-row';
import type { LoadedPhotos } from '../../records/photos/photo-knowledge';
import { checkSteps } from '../many/check-steps';
import type { PreviewEdit } from '../many/edit-schema';
import { findEditedListings } from '../many/edited-listings';
import { hearSales } from '../many/followed-sales';
import { inWords } from '../many/in-words';
import { type LoadedSteps, stepContext } from '../many/step-context';
import { lookFor, photosFor } from '../many/step-photos';
import { netTuple } from './net-tuple';
import { shotSchema, shotsOf } from './preview-shots';

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
  /** How long a text becomes there, of how much. */
  note: z.string().nullable(),
  /** Of photos, one by one. */
  shots: z.object({ before: z.array(shotSchema), after: z.array(shotSchema) }).nullable(),
});
export type ShownChange = z.infer<typeof shownChangeSchema>;

export const previewRowSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  changes: z.array(shownChangeSchema),
  refused: z.string().nullable(),
  /** What would be wrong with the listing on the account that is looked at. */
  breaks: z.array(z.string()),
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

function shown(change: DoneChange, before: ItemRecord, { context }: LoadedSteps, photos?: LoadedPhotos): ShownChange[] {
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
  const text = (value: DoneChange['to']) => inWords(field, value, currency);
  const row = combination === undefined ? undefined : item.variations.find((one) => one.key === combination);
  // Where nothing was written for the account, it is what it got of the item.
  const from =
    account !== undefined && change.from === null
      ? (context.listed(before, account, change.field) ?? null)
      : change.from;
  const isPhotos = field.kind.is === 'photos';
  return [
    {
      column: `${account ?? ''}/${combination === undefined ? '' : 'combination'}/${change.field}`,
      label: field.label,
      accountId: account ?? null,
      combination: row ? combinationWords(row.values) : null,
      before: isPhotos ? '' : text(from),
      after: isPhotos ? '' : text(change.to),
      isNumber: numberKinds.includes(field.kind.is),
      note: null,
      shots: isPhotos ? { before: shotsOf(from, photos), after: shotsOf(change.to, photos) } : null,
    },
  ];
}

/** What is left of a listing as it is by then. */
function netIn(net: AccountNet, { item, overrides }: Seen, row: ListedRow | undefined): number | null {
  const own = overrides.get(net.account.id) ?? {};
  if (row && net.isTemplated) {
    const { content } = computeListing(inputOf(item, { ...row, overrides: own }, net.account));
    return netOfContent(net.account, content, item, net.liveCount)?.net ?? null;
  }
  const tuple = netTuple(item);
  const price = typeof own.price === 'number' ? own.price : priceThere(net, tuple, item.price, own);
  return netsAt(net, tuple, price, own)?.net ?? null;
}

type Seen = { item: ItemRecord['item']; overrides: ReadonlyMap<number, Overrides> };
type ListedRow = Awaited<ReturnType<typeof findEditedListings>>[number];

/** What an account gets of an item, before and after, field by field, as it is fitted and rounded there. */
function shownThere(
  row: ListedRow,
  { account }: AccountNet,
  before: Seen,
  after: Seen,
  { context }: LoadedSteps,
  photos?: LoadedPhotos,
): { changes: ShownChange[]; breaks: string[] } {
  const at = ({ item, overrides }: Seen) =>
    computeListing(inputOf(item, { ...row, overrides: overrides.get(account.id) ?? {} }, account));
  const [was, becomes] = [at(before), at(after)];
  const values = new Map([...was.values, ...becomes.values].map((one) => [one.field, one]));
  const currency = context.currencyOf(account.id);
  const changes = diff(was.content, becomes.content).map(({ field, from, to }): ShownChange => {
    const known = context.listingField(account.id, field);
    const { label = field, length, max } = values.get(field) ?? {};
    const text = (value: Json) => {
      const said = known ? inWords(known, value, currency) : value === null ? '' : JSON.stringify(value);
      return field === 'description' && known?.kind.is !== 'rich' ? toPlainText(said) : said;
    };
    return {
      column: `there/${field}`,
      label,
      accountId: null,
      combination: null,
      before: field === 'photos' ? '' : text(from),
      after: field === 'photos' ? '' : text(to),
      isNumber: known !== undefined && numberKinds.includes(known.kind.is),
      note: length === undefined || max === undefined ? null : `${length} of ${max}`,
      shots: field === 'photos' ? { before: shotsOf(from, photos), after: shotsOf(to, photos) } : null,
    };
  });
  const known = new Set(was.issues.map((one) => one.message));
  const breaks = becomes.issues
    .filter((one) => one.blocks && one.code !== 'quantity-none' && !known.has(one.message))
    .map((one) => one.message);
  return { changes, breaks };
}

/** The first rows of a change, before and after, with the net per account; or as one account will get them. */
export async function previewRows(edit: PreviewEdit, limit = 60): Promise<PreviewRow[]> {
  const db = database();
  await checkSteps(db, edit.steps);
  const [nets, loaded] = await Promise.all([accountNets(), stepContext(db, edit.steps)]);
  const found = await withConnection((connection) =>
    readRows<[id: number, photo: string | null]>(
      connection,
      sql`select i.id, i.main_photo from item i where ${selectionWhere(edit.selection)} order by i.id limit ${limit}`,
    ),
  );
  const ids = found.map(([id]) => id);
  const mainPhotos = new Map(found);
  const [items, listings] = await Promise.all([loadItems(db, ids), findEditedListings(db, ids)]);
  await Promise.all([hearSales(edit.steps, ids), lookFor(edit.steps, ids, true)]);
  const photos = await photosFor(db, edit.steps, items, listings);
  const byItem = groupByItem(listings);
  return items.map((item): PreviewRow => {
    const rows = byItem.get(item.id) ?? [];
    const before: ItemRecord = itemRecord(item, rows);
    const { overrides } = before;
    const result = applySteps(edit.steps, before, { ...loaded.context, photos });
    const after: Seen = 'record' in result ? result.record : before;
    const price = (account: number, from: Seen['overrides']) => {
      const own = from.get(account)?.price;
      return typeof own === 'number' ? own : null;
    };
    const there = edit.account === undefined ? undefined : rows.find((row) => row.accountId === edit.account);
    const net = edit.account === undefined ? undefined : nets.get(edit.account);
    const seen =
      edit.account === undefined
        ? {
            changes: 'changes' in result ? result.changes.flatMap((one) => shown(one, before, loaded, photos)) : [],
            breaks: [],
          }
        : there && net && there.state !== 'none'
          ? shownThere(there, net, before, after, loaded, photos)
          : { changes: [], breaks: [] };
    return {
      id: item.id,
      sku: item.sku,
      title: item.title,
      photo: mainPhotos.get(item.id) ?? null,
      ...seen,
      refused: 'refused' in result ? result.refused : null,
      nets: rows
        .filter((row) => row.state !== 'none' && (edit.account === undefined || row.accountId === edit.account))
        .flatMap(({ accountId }) => {
          const net = nets.get(accountId);
          if (!net) return [];
          const row = rows.find((one) => one.accountId === accountId);
          const at = (record: Seen) => netIn(net, record, row);
          return [
            {
              accountId,
              before: at(before),
              after: at(after),
              keepsOverride: price(accountId, overrides) !== null && after.item.price !== item.price,
            },
          ];
        }),
    };
  });
}
