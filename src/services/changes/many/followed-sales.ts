import type { Step } from '../../../core/edit';
import type { Item } from '../../../core/item';
import { type Comparable, statisticsOf } from '../../../core/price';
import { database } from '../../../db/client';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { today } from '../../records/accounts/today';
import { loadItems } from '../../records/items/load-items';
import { salesOfThing } from '../../records/items/sales-of-thing';

/** What was heard holds so long in this process; a change that goes on in the background asks anew. */
const keptMs = 3_600_000;
const mostKept = 20_000;
const heard = new Map<string, { sales: Comparable[]; until: number }>();

const thingOf = ({ brand, model, barcode, title }: Item): string =>
  JSON.stringify(brand && model ? [brand, model, barcode] : [title, barcode]);

const followsSales = (steps: readonly Step[]): boolean => steps.some((step) => step.do.verb === 'follow-sales');

/**
 * Asks the marketplaces what these items sold for, each thing once, before the items are held: nobody waits for a stranger
 * with a lock in hand. Where no step follows sales nothing is asked.
 */
export async function hearSales(steps: readonly Step[], ids: readonly number[]): Promise<void> {
  if (!followsSales(steps) || ids.length === 0) return;
  const db = database();
  const accounts = await loadAccounts(db);
  for (const item of await loadItems(db, [...ids])) {
    const known = heard.get(thingOf(item));
    if (known && known.until > Date.now()) continue;
    // The oldest goes: what this very portion has just heard must still be there when it is carried out.
    const [oldest] = heard.keys();
    if (heard.size > mostKept && oldest !== undefined) heard.delete(oldest);
    const { sales } = await salesOfThing(accounts, item, false);
    heard.set(thingOf(item), { sales, until: Date.now() + keptMs });
  }
}

/** What such things sold for, as far as it was heard. */
export function soldFor(item: Item, days: number): { median: number; count: number } | null {
  const found = statisticsOf(heard.get(thingOf(item))?.sales ?? [], today(), days);
  return found && { median: found.median, count: found.count };
}
