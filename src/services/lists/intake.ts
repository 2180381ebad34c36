import type { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { findConsignments } from '../consignments/find-consignments';
import { stockThere } from '../consignments/stock-there';
import { findFound, type findFoundSchema } from '../gathering/find-found';
import { findBatches, type findBatchesSchema } from '../intake/find-batches';
import { findLines, type findLinesSchema } from '../intake/find-lines';
import { findKit, findLots } from '../kits/find-kit';
import { findKits } from '../kits/find-kits';
import { loadAccounts } from '../records/accounts/load-accounts';
import { heads, type ListFile, money, pages } from './list-file';

const portion = 100;

/** Piles that came in together. */
export const batchList: ListFile<Omit<z.output<typeof findBatchesSchema>, 'before' | 'limit'>> = {
  name: 'batches',
  columns: heads('name', 'supplier', 'bought on', 'cost#', 'state', 'lines#', 'units#', 'to be mended#', 'by', 'begun'),
  async *rows(filter) {
    for await (const { batches } of pages<number, Awaited<ReturnType<typeof findBatches>>>((before) =>
      findBatches({ ...filter, before, limit: portion }),
    ))
      for (const one of batches)
        yield [
          one.name,
          one.supplier,
          one.boughtOn,
          money(one.totalCost),
          one.state,
          one.lines,
          one.units,
          one.open,
          one.byName,
          one.createdAt,
        ];
  },
};

/** Every scan of a batch, the newest first, with the item that came of it. */
export const lineList: ListFile<{ id: number } & Pick<z.output<typeof findLinesSchema>, 'open'>> = {
  name: 'batch',
  columns: heads(
    'at',
    'by',
    'scanned',
    'what it is',
    'units#',
    'stock number',
    'title',
    'condition',
    'condition note',
    'cost#',
    'price#',
    'best net#',
    'place',
    'still to be said',
    'taken back',
  ),
  async *rows({ id, open }) {
    for await (const { lines } of pages<number, Awaited<ReturnType<typeof findLines>>>((before) =>
      findLines(id, { before, limit: portion, open }),
    ))
      for (const one of lines)
        yield [
          one.at,
          one.byName,
          one.scanned,
          one.said,
          one.units,
          one.item?.sku,
          one.item?.title,
          one.item?.condition,
          one.item?.conditionNote,
          money(one.item?.cost ?? null),
          money(one.item?.price ?? null),
          money(one.best?.net ?? null),
          one.item?.location,
          one.needs.map((need) => need.words).join('; '),
          one.isUndone ? 'yes' : '',
        ];
  },
};

/** Stock that was sent in to warehouses. */
export const consignmentList: ListFile<unknown> = {
  name: 'consignments',
  columns: heads('name', 'account', 'state', 'warehouses', 'units#', 'packed#', 'missing#', 'by', 'begun'),
  async *rows() {
    for await (const { consignments } of pages<number, Awaited<ReturnType<typeof findConsignments>>>((before) =>
      findConsignments({ before, limit: portion }),
    ))
      for (const one of consignments)
        yield [
          one.name,
          one.accountName,
          one.state,
          one.warehouses.join(', '),
          one.units,
          one.packed,
          one.missing,
          one.byName,
          one.createdAt,
        ];
  },
};

/** What lies in warehouses, by the ledger and as they tell it. */
export const thereList: ListFile<unknown> = {
  name: 'at-warehouses',
  columns: heads('account', 'stock number', 'title', 'ours#', 'theirs#', 'a month there#', 'why it did not answer'),
  async *rows() {
    for (const { accountName, problem, rows } of await stockThere()) {
      if (problem) yield [accountName, '', '', '', '', '', problem];
      for (const one of rows) yield [accountName, one.sku, one.title, one.ours, one.theirs, money(one.monthly), ''];
    }
  },
};

/** Sets that are taken apart. */
export const kitList: ListFile<unknown> = {
  name: 'sets',
  columns: heads('name', 'state', 'cost#', 'lots#', 'pieces#', 'lots in stock#', 'by', 'begun'),
  async *rows() {
    for await (const { kits } of pages<number, Awaited<ReturnType<typeof findKits>>>((before) =>
      findKits({ before, limit: portion }),
    ))
      for (const one of kits)
        yield [one.name, one.state, money(one.totalCost), one.lots, one.pieces, one.done, one.byName, one.createdAt];
  },
};

/** Every lot of a set, in the order in which they came. */
export const lotList: ListFile<{ id: number }> = {
  name: 'lots',
  columns: heads(
    'entry',
    'name',
    'finish',
    'kind',
    'condition',
    'pieces#',
    'grams a piece#',
    'price#',
    'from so many sales#',
    'kept',
    'tiers',
    'comment',
    'place',
    'state',
    'stock number',
  ),
  async *rows({ id }) {
    await findKit(id);
    for await (const { lots } of pages<number, Awaited<ReturnType<typeof findLots>>>((after = 0) =>
      findLots(id, { after, limit: 1_000 }),
    ))
      for (const one of lots)
        yield [
          one.entry,
          one.name,
          one.finish,
          one.sort,
          one.condition,
          one.quantity,
          one.grams,
          money(one.price),
          one.basis?.count,
          one.isKept ? 'yes' : '',
          one.tiers.join('; '),
          one.comment,
          one.place,
          one.state,
          one.item?.sku,
        ];
  },
};

/** What was found on an account, the newest first. */
export const foundList: ListFile<Omit<z.output<typeof findFoundSchema>, 'after' | 'limit'>> = {
  name: 'found',
  columns: heads(
    'listing number',
    'stock number',
    'title',
    'section',
    'state',
    'price#',
    'currency',
    'quantity#',
    'made',
    'link',
    'in as',
  ),
  async *rows(filter) {
    const [account] = await loadAccounts(database(), [filter.account]);
    if (!account) throw new NettingError('not-found', 'There is no such account');
    const { currency } = account.compiled.rules;
    for await (const { found } of pages<string, Awaited<ReturnType<typeof findFound>>>((after) =>
      findFound({ ...filter, after, limit: portion }),
    ))
      for (const one of found)
        yield [
          one.remoteId,
          one.sku,
          one.title,
          one.section,
          one.state,
          money(one.price, currency),
          currency,
          one.quantity,
          one.madeAt,
          one.url,
          one.item?.sku,
        ];
  },
};
