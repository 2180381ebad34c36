import type { z } from 'zod';
import { fieldsFor } from '../../core/field';
import type { Json } from '../../core/json';
import { homeCurrency } from '../../core/measure';
import { database } from '../../db/client';
import { findArtworks } from '../artwork/find-artworks';
import { findArtworkEarnings } from '../artwork/find-earnings';
import { recordedField } from '../changes/preview/present-value';
import { findRunChanges } from '../changes/undo/find-run-changes';
import { type HistoryPlace, type ItemHistory, itemHistory } from '../items/item-history';
import { comparablesOf, type comparablesQuerySchema } from '../listings/prices/comparables';
import { findFlawed, type findFlawedSchema } from '../photos/find-flaws';
import { accountNames } from '../records/accounts/account-names';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { findMovements } from '../stock/find-movements';
import { heads, type ListFile, money, pages } from './list-file';

const portion = 200;
const all = 100_000;

/** The stock ledger of an item, the newest first. */
export const movementList: ListFile<{ id: number }> = {
  name: 'ledger',
  columns: heads('at', 'what', 'units#', 'left#', 'combination', 'where', 'sold on', 'note', 'by'),
  async *rows({ id }) {
    for (const one of (await findMovements(id, all)).movements)
      yield [
        one.at,
        one.words,
        one.delta,
        one.balance,
        one.variation,
        one.warehouse ?? one.place,
        one.soldOn,
        one.note,
        one.byName,
      ];
  },
};

/** The single sales from which a thing's worth is computed. */
export const comparableList: ListFile<{ id: number } & z.output<typeof comparablesQuerySchema>> = {
  name: 'comparables',
  columns: heads('date', 'price#', 'pieces#', 'condition', 'days on sale#', 'from'),
  async *rows({ id, ...query }) {
    for (const one of (await comparablesOf(id, query)).sales)
      yield [one.date, money(one.price), one.quantity, one.condition, one.daysOnSale, one.source];
  },
};

/** Who changed what of an item, and what each marketplace answered, the newest first. */
export const historyList: ListFile<{ id: number }> = {
  name: 'history',
  columns: heads('at', 'by', 'how', 'account', 'combination', 'field', 'from', 'to', 'answer', 'mend'),
  async *rows({ id }) {
    const db = database();
    const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
    const catalogue = fieldsFor(await loadCustomFields(db));
    for await (const { history } of pages<HistoryPlace, ItemHistory>((from) => itemHistory(id, from, portion)))
      for (const one of history) {
        const account = accounts.get(one.accountId ?? 0);
        if (one.kind === 'answer') {
          yield [one.at, '', '', account?.name, '', one.fields.join(', '), '', '', one.message ?? one.outcome, one.fix];
          continue;
        }
        const field = recordedField(one, catalogue);
        const currency = account?.compiled.rules.currency ?? homeCurrency;
        const text = (value: unknown) =>
          field ? field.show(value as Json, { currency }) : value === null ? '' : JSON.stringify(value); // written by that field
        const what = field?.label ?? one.field;
        yield [one.at, one.byName, one.why, account?.name, one.combination, what, text(one.from), text(one.to)];
      }
  },
};

/** Items with a flaw in their photos. */
export const flawedList: ListFile<Omit<z.output<typeof findFlawedSchema>, 'after' | 'limit'>> = {
  name: 'photos',
  columns: heads('stock number', 'title', 'photos#', 'longest side of the largest#'),
  async *rows(filter) {
    for await (const { items } of pages<number, Awaited<ReturnType<typeof findFlawed>>>((after = 0) =>
      findFlawed({ ...filter, after, limit: portion }),
    ))
      for (const { sku, title, photos } of items)
        yield [sku, title, photos.length, Math.max(0, ...photos.map((one) => Math.max(one.width, one.height)))];
  },
};

/** Artwork, the newest first. */
export const artworkList: ListFile<unknown> = {
  name: 'artwork',
  columns: heads(
    'stock number',
    'title',
    'file',
    'width#',
    'height#',
    'audience',
    'tags',
    'reads well on',
    'looks like',
  ),
  async *rows() {
    for await (const { artworks } of pages<number, Awaited<ReturnType<typeof findArtworks>>>((before) =>
      findArtworks({ before, limit: 100 }),
    ))
      for (const one of artworks)
        yield [
          one.sku,
          one.title,
          one.name,
          one.width,
          one.height,
          one.audience,
          one.tags.join(', '),
          one.grounds.join(', '),
          one.twin?.title,
        ];
  },
};

/** What each picture earned on each product and account. */
export const earningList: ListFile<Parameters<typeof findArtworkEarnings>[0]> = {
  name: 'earnings',
  columns: heads('picture', 'product', 'account', 'pieces#', 'net#', 'currency', 'pieces without a rate#'),
  async *rows(query) {
    const { currency, earnings } = await findArtworkEarnings(query);
    for (const one of earnings)
      yield [one.title, one.product, one.account, one.pieces, money(one.net, currency), currency, one.unknown];
  },
};

/** What a change did: a row for each value, before, by it, and now. */
export const runChangeList: ListFile<{ id: number }> = {
  name: 'change',
  columns: heads('stock number', 'title', 'account', 'combination', 'field', 'before', 'made', 'now', 'state'),
  async *rows({ id }) {
    const names = await accountNames();
    for await (const { items } of pages<number, Awaited<ReturnType<typeof findRunChanges>>>((after = 0) =>
      findRunChanges(id, { after, limit: portion }),
    ))
      for (const { sku, title, changes } of items)
        for (const one of changes)
          yield [
            sku,
            title,
            one.accountId === null ? '' : names.get(one.accountId),
            one.combination,
            one.field,
            one.before,
            one.made,
            one.now,
            one.state === 'as-made' ? '' : one.state === 'taken-back' ? 'taken back' : 'changed since',
          ];
  },
};
