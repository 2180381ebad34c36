import { sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { homeCurrency } from '../../core/measure';
import { database, transaction } from '../../db/client';
import { kitLot, type TaskRow } from '../../db/schema';
import { updateMany } from '../../db/update-many';
import { openAccount } from '../records/accounts/open-account';
import { advanceTask } from '../records/tasks/advance-task';
import { freshSince, hearEntry, knownSales } from './entry-sales';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';
import type { PricingTask } from './price-lots';
import { type FoundPrice, findPrices, settlePrices } from './prices-of-lots';

/** So many entries are asked of in one step: a step is kept, and can be stopped after. */
const askedAtOnce = 8;
const toldAtOnce = 500;

export type PricingResult = { priced: number; unpriced: number; kept: number };

/** Asks of the next entries what they sold for; once all have been heard, prices the lots. */
export async function pricingStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { kit: id, entries, since, how, lots, kept } = task.input as PricingTask; // written by `priceLots`
  const { at } = (task.cursor ?? { at: 0 }) as { at: number }; // written below
  const kit = await loadKit(database(), id);
  const open = await openAccount(kit.accountId ?? 0);
  const { rate, row, compiled } = open.account;
  const { market } = row;
  const { currency, name } = compiled.rules;
  if (currency !== homeCurrency && !rate)
    throw new NettingError('invalid', `${name}: no exchange rate to ${currency} is known`);
  const from = since ? new Date(since) : freshSince();
  const left = entries.slice(at);
  const heard = await knownSales(database(), market, left.slice(0, 500), from);
  // What is known already is passed over at once.
  const known = left.findIndex((entry, index) => index < 500 && !heard.has(entry));
  const passed = known === -1 ? Math.min(left.length, 500) : known;
  const asked = left.slice(passed, passed + askedAtOnce).filter((entry) => !heard.has(entry));
  if (asked.length) await Promise.all(asked.map((entry) => hearEntry(open, entry)));
  const next = Math.min(entries.length, at + (asked.length ? passed + askedAtOnce : passed));
  if (next < entries.length)
    return advanceTask(database(), task, holder, {
      cursor: { at: next },
      done: next - at,
      finished: false,
      result: null,
    });
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const meant = new Set(lots);
    const now = (await lotsOf(tx, id)).filter(
      (lot) => meant.has(lot.id) && lot.state !== 'out' && lot.state !== 'done',
    );
    const still = now.filter((lot) => !lot.isKept);
    const found: FoundPrice[] = [];
    // What was told of so many entries at a time, however many there are.
    for (let from = 0; from < still.length; from += toldAtOnce) {
      const some = still.slice(from, from + toldAtOnce);
      const told = await knownSales(tx, market, [...new Set(some.map((lot) => lot.entry))], null);
      found.push(...findPrices(some, told, open.account, how));
    }
    const priced = settlePrices(found, open.account, how);
    const unpriced = still.length - priced.length;
    await updateMany(
      tx,
      'kit_lot',
      priced.map(({ lot, price, basis }) => ({
        id: lot,
        set: [
          [kitLot.price, price],
          [kitLot.basis, basis],
        ],
      })),
      sql`r.version = r.version + 1`,
    );
    const result: PricingResult = { priced: priced.length, unpriced, kept: kept + now.length - still.length };
    return advanceTask(tx, task, holder, { cursor: { at: next }, done: entries.length - at, finished: true, result });
  });
}
