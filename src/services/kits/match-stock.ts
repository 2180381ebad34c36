import { and, eq, inArray } from 'drizzle-orm';
import type { Item } from '../../core/item';
import { productOf } from '../../core/listing';
import type { Executor } from '../../db/client';
import { item, kitLot } from '../../db/schema';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { loadItems } from '../records/items/load-items';
import type { LotNow } from './find-kit';

type Asked = Pick<LotNow, 'id' | 'entry' | 'name' | 'finish' | 'condition' | 'place'>;

const atOnce = 500;
const plain = (text: string): string => text.trim().toLowerCase();

/** The finish that an item has, as it is written on it. */
const finishOf = ({ attributes }: Item): string => plain(attributes.Finish ?? attributes.Colour ?? '');

/**
 * The item that each lot is the same as: the same entry (or name, where no catalogue knows it), finish and condition. Of
 * several that one which lies at the lot's place, else the one that was recorded first.
 * @returns by the number of the lot; lots that nothing is the same as are left out
 */
export async function matchStock(
  db: Executor,
  account: LoadedAccount | undefined,
  lots: readonly Asked[],
): Promise<Map<number, Item>> {
  const matched = new Map<number, Item>();
  for (let at = 0; at < lots.length; at += atOnce) {
    const some = lots.slice(at, at + atOnce);
    const found = await candidates(db, account, some);
    const byKey = new Map<string, Item[]>();
    for (const one of found) {
      const entry = account ? productOf(account.products, one)?.id : undefined;
      for (const key of [entry ? `#${entry}` : '', `=${plain(one.title)}`].filter(Boolean)) {
        const whole = `${key}|${finishOf(one)}|${one.condition}`;
        byKey.set(whole, [...(byKey.get(whole) ?? []), one]);
      }
    }
    for (const lot of some) {
      const key = lot.entry ? `#${lot.entry}` : `=${plain(lot.name)}`;
      const same = byKey.get(`${key}|${plain(lot.finish)}|${lot.condition}`) ?? [];
      const best = same.find((one) => lot.place !== '' && one.location === lot.place) ?? same[0];
      if (best) matched.set(lot.id, best);
    }
  }
  return matched;
}

/** Items that could be the same: what these entries became before, what bears their codes, and what is called so. */
async function candidates(db: Executor, account: LoadedAccount | undefined, lots: readonly Asked[]): Promise<Item[]> {
  const entries = [...new Set(lots.flatMap((lot) => (lot.entry ? [lot.entry] : [])))];
  const wanted = new Set(entries);
  const codes = Object.entries(account?.products ?? {}).flatMap(([key, { id }]) =>
    wanted.has(id) && key.startsWith('code:') ? [key.slice(5)] : [],
  );
  const earlier = entries.length
    ? await db.selectDistinct({ id: kitLot.itemId }).from(kitLot).where(inArray(kitLot.entry, entries))
    : [];
  const active = eq(item.standing, 'active');
  const called = await db
    .select({ id: item.id })
    .from(item)
    .where(and(active, inArray(item.title, [...new Set(lots.map((lot) => lot.name))])));
  const coded = codes.length
    ? await db
        .select({ id: item.id })
        .from(item)
        .where(and(active, inArray(item.barcode, codes)))
    : [];
  const ids = [...new Set([...earlier, ...called, ...coded].flatMap(({ id }) => id ?? []))].sort((a, b) => a - b);
  const items = await loadItems(db, ids);
  return items.filter((one) => one.standing === 'active' && one.axes.length === 0);
}
