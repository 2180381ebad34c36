import { applyChanges, type Change, type DoneChange, isMeant, isTarget, type Refusal } from '../../../core/change';
import { fieldsFor } from '../../../core/field';
import { combinationWords, type Item, type MovementReason, type Photo, storable } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { newCombinationKey } from '../../../db/combination-key';
import { type changeRecord, type ListingRow, movement } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { asOfNow, type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { cleanRichText } from '../../records/items/clean-rich-text';
import { type HeldWhole, holdItems } from '../../records/items/hold-items';
import { itemRecord } from '../../records/items/item-record';
import { loadCustomFields } from '../../records/items/load-custom-fields';
import { groupByItem } from '../../records/items/load-items';
import { computeRow, derivedColumns } from '../../records/listings/compute-row';
import { storeDerived } from '../../records/listings/refresh-listings';
import { followFamily, type Work } from './follow-family';
import { queueChanges, type Send, type SendPart, type Stirred } from './queue-changes';
import { recordChanges } from './record-changes';
import { newNumbers, takeSkus } from './take-skus';
import { targetDrafts } from './target-drafts';
import { type ChangedItem, writeItems } from './write-items';
import { type WrittenOverrides, writeOverrides } from './write-overrides';
import { type Said, writeTargets } from './write-targets';

export type CommitOptions = {
  actor: Actor;
  why: (typeof changeRecord.$inferInsert)['why'];
  at: Date;
  /** The run that it is part of; its jobs are the run's, too. */
  runId?: number;
  /** What goes out by itself; stock that falls always does. */
  send: Send;
  /** Of what goes out only this part. */
  part?: SendPart;
  /** Why stock moves, and the sale that moved it; `set` when left out. */
  stock?: { reason: MovementReason; note?: string | null; saleId?: number; mayGoBelowZero?: boolean };
  /** Photos besides the items' own that a change may name. */
  photos?: readonly Photo[];
  /** Loaded before, where many portions follow each other. */
  accounts?: LoadedAccount[];
};

export type CommittedItem = {
  itemId: number;
  version: number;
  /** What became different; empty when nothing did. */
  changes: DoneChange[];
  item: Item;
};

export type Committed = {
  /** Every item that was held, as it is now. */
  items: CommittedItem[];
  refused: Refusal[];
  queued: number;
};

/** Says what shall change, seen with the items held. A refusal leaves its item as it is. */
export type ChangeSource = (held: HeldWhole) => (Change | Refusal)[] | Promise<(Change | Refusal)[]>;

const isRefusal = (one: Change | Refusal): one is Refusal => 'why' in one;

function cleaned(change: Change): Change {
  if (change.to === undefined) return change;
  const to = storable(change.to);
  return { ...change, to: change.field === 'description' && typeof to === 'string' ? cleanRichText(to) : to };
}

/**
 * The one way in which items, combinations, what is written for single accounts, and the stock ledger become different.
 * Holds the items, asks the source, carries each item's changes out whole or not at all, and in the same transaction
 * writes them with their history and movements, computes the listings anew and queues what must go out.
 */
export async function commitItems(
  db: Executor,
  itemIds: readonly number[],
  source: ChangeSource,
  options: CommitOptions,
): Promise<Committed> {
  const held = await holdItems(db, itemIds);
  const said = await source(held);
  const refused: Refusal[] = said.filter(isRefusal);
  const outside = new Set(refused.map((one) => one.item));
  const byItem = new Map<number, Change[]>();
  for (const one of said) {
    if (isRefusal(one) || outside.has(one.target.item)) continue;
    byItem.set(one.target.item, [...(byItem.get(one.target.item) ?? []), cleaned(one)]);
  }
  const accounts = options.accounts ? await asOfNow(db, options.accounts) : await loadAccounts(db);
  const catalogue = fieldsFor(await loadCustomFields(db));
  const work: Work[] = [];
  const items = new Map(held.items.map((one) => [one.id, one]));
  const rowsOf = groupByItem(held.listings);
  for (const [id, changes] of byItem) {
    const item = items.get(id);
    const [first] = changes;
    if (!item || !first) {
      refused.push({ item: id, field: first?.field ?? '', kind: 'not-found', why: `There is no item ${id}` });
      continue;
    }
    const stranger = changes.find(
      ({ target }) => target.account !== undefined && !accounts.some((one) => one.id === target.account),
    );
    if (stranger) {
      refused.push({ item: id, field: stranger.field, kind: 'not-found', why: 'There is no such account' });
      continue;
    }
    const applied = applyChanges(itemRecord(item, rowsOf.get(id) ?? []), changes, {
      catalogue,
      newKey: newCombinationKey,
      photos: options.photos,
      mayGoBelowZero: options.stock?.mayGoBelowZero,
    });
    if ('refused' in applied) {
      refused.push(applied.refused);
      continue;
    }
    const taken = await takeSkus(db, newNumbers(item, applied.record.item), options.at);
    if (taken !== null) {
      const field = taken === applied.record.item.sku ? 'sku' : 'variations';
      refused.push({ item: id, field, kind: 'sku-taken', why: `The stock number ${taken} was given before` });
      continue;
    }
    const { record, changes: done, moves } = applied;
    const { overrides, meant } = record;
    work.push({ follows: false, before: item, after: record.item, overrides, meant, changes: done, moves });
  }
  refused.push(...(await followFamily(db, held.family, work, options.stock ?? {})));
  for (const [id, rows] of groupByItem(held.family?.listings ?? [])) rowsOf.set(id, rows);
  await write(db, work, rowsOf, accounts, options);
  const queued = await queueChanges(db, stirredBy(work), options.send, options.runId ?? null, options.part);
  const changed = new Map(work.map((one) => [one.before.id, committed(one)]));
  const whole = held.items.map(
    (item) => changed.get(item.id) ?? { itemId: item.id, version: item.version, changes: [], item },
  );
  return { items: whole, refused, queued };
}

const ofItem = (change: DoneChange) => change.target.account === undefined;
const isChanged = ({ changes, moves }: Work) => changes.some(ofItem) || moves.length > 0;

const committed = (work: Work): CommittedItem => ({
  itemId: work.before.id,
  version: work.before.version + (isChanged(work) ? 1 : 0),
  changes: work.changes,
  item: { ...work.after, version: work.before.version + (isChanged(work) ? 1 : 0) },
});

const stirredBy = (work: readonly Work[]): Stirred => {
  // A combination that is switched off moves nothing, and yet there is less to sell.
  // Nothing of what is put away may be bought any more.
  const moved = work.filter(
    ({ before, after, moves }) =>
      moves.length > 0 || before.quantity !== after.quantity || before.standing !== after.standing,
  );
  const fell = ({ before, after, moves }: Work) =>
    moves.some((move) => move.delta < 0) || after.quantity < before.quantity || after.standing !== 'active';
  const ids = (some: readonly Work[]) => some.map((one) => one.before.id);
  return { all: ids(work.filter((one) => one.changes.length)), moved: ids(moved), fallen: ids(moved.filter(fell)) };
};

/** Items, what is written for accounts, movements, history, and what follows for the listings; in this order. */
async function write(
  db: Executor,
  work: readonly Work[],
  rowsOf: ReadonlyMap<number, ListingRow[]>,
  accounts: readonly LoadedAccount[],
  options: CommitOptions,
): Promise<void> {
  const stirred = work.filter((one) => one.changes.length || one.moves.length);
  if (stirred.length === 0) return;
  await writeItems(db, stirred.filter(isChanged).map(changedFields), options.at);
  const written = stirred.flatMap((one): WrittenOverrides[] => {
    const concerned = new Set(one.changes.flatMap(({ target }) => target.account ?? []));
    return [...concerned].map((accountId) => ({
      itemId: one.before.id,
      accountId,
      row: rowsOf.get(one.before.id)?.find((row) => row.accountId === accountId),
      overrides: one.overrides.get(accountId) ?? {},
    }));
  });
  const told = await writeOverrides(db, written);
  const now = new Map((await writeTargets(db, told, targetsOf(stirred))).map((row) => [row.id, row]));
  const present = stirred
    .filter(isChanged)
    .flatMap((one) => rowsOf.get(one.before.id) ?? [])
    .map((row) => now.get(row.id) ?? row);
  const retargeted = await targetDrafts(
    db,
    stirred.filter(isChanged).map((one) => one.after),
    [...present, ...now.values()],
    accounts.map((one) => one.row),
  );
  for (const row of retargeted) now.set(row.id, row);
  await writeMovements(db, stirred, options);
  const turned = groupByItem([...now.values()]);
  const listingOf = (itemId: number, accountId: number) =>
    turned.get(itemId)?.find((row) => row.accountId === accountId)?.id;
  const follows = (one: Work, field: string) => one.follows && field === 'quantity';
  const recordsOf = (isFollowing: boolean) =>
    stirred.flatMap((one) =>
      one.changes
        .filter(({ field }) => follows(one, field) === isFollowing)
        .map(({ target, field, from, to }) => ({
          itemId: target.item,
          listingId: target.account === undefined ? undefined : listingOf(target.item, target.account),
          combination: target.combination,
          itemVersion: one.before.version + (isChanged(one) ? 1 : 0),
          field,
          from,
          to,
        })),
    );
  await recordChanges(db, options, recordsOf(false));
  // What follows from others is taken back with them: it is no part of the run itself.
  await recordChanges(db, { ...options, runId: undefined }, recordsOf(true));
  await derive(db, stirred, rowsOf, turned, accounts);
}

/** What was said of whether items are meant for accounts. */
const targetsOf = (work: readonly Work[]): Said[] =>
  work.flatMap((one) =>
    one.changes.flatMap(({ target, field }) =>
      target.account !== undefined && isTarget({ target, field })
        ? [{ itemId: target.item, accountId: target.account, isMeant: isMeant(one, target.account) }]
        : [],
    ),
  );

function changedFields({ before, after, changes }: Work): ChangedItem {
  const fields = new Set<string>();
  for (const { target, field } of changes.filter(ofItem)) {
    const part = field.startsWith('attributes.') ? 'attributes' : field.startsWith('own.') ? 'own' : field;
    fields.add(target.combination === undefined ? part : 'variations');
  }
  if (before.quantity !== after.quantity) fields.add('quantity');
  return { item: after, fields };
}

function wordsOf(item: Item, key: string | null): string | null {
  const row = item.variations.find((one) => one.key === key);
  return row ? combinationWords(row.values) : null;
}

async function writeMovements(db: Executor, work: readonly Work[], options: CommitOptions): Promise<void> {
  const { reason = 'set', note = null, saleId = null } = options.stock ?? {};
  const rows = work.flatMap(({ before, after, moves, follows }) =>
    moves.map(({ combination, delta, place, account }) => ({
      itemId: before.id,
      delta,
      place,
      accountId: account,
      combination,
      variation: wordsOf(after, combination) ?? wordsOf(before, combination),
      note,
      ...(follows && place === 'here'
        ? { reason: 'with-set' as const, saleId: null, runId: null }
        : { reason, saleId, runId: options.runId ?? null }),
      at: options.at,
      byName: options.actor.name,
    })),
  );
  if (rows.length) await db.insert(movement).values(rows);
}

/** What every listing concerned shall hold now, computed from what was just written. */
async function derive(
  db: Executor,
  work: readonly Work[],
  rowsOf: ReadonlyMap<number, ListingRow[]>,
  turned: ReadonlyMap<number, ListingRow[]>,
  accounts: readonly LoadedAccount[],
): Promise<void> {
  const shops = new Map(accounts.map((one) => [one.id, one]));
  const derived = work.flatMap((one) => {
    const now = turned.get(one.before.id) ?? [];
    const isOther = (row: ListingRow) => now.every((other) => other.id !== row.id);
    // An item that did not change itself leaves the other accounts' listings as they are.
    const rest = isChanged(one) ? (rowsOf.get(one.before.id) ?? []).filter(isOther) : [];
    const rows = [...rest, ...now];
    return rows.flatMap((row) => {
      const account = shops.get(row.accountId);
      return account
        ? [{ id: row.id, set: derivedColumns(row, computeRow(one.after, row, account), account), now: row }]
        : [];
    });
  });
  await storeDerived(db, derived);
}
