import type { LotView } from '@/services/kits/find-kit';
import { type Grouping, type Order, stateWords } from './columns';

export type View = { find: string; order: Order; isDown: boolean; group: Grouping };
export type ShownRow =
  | { is: 'lot'; id: number }
  | { is: 'group'; key: string; words: string; lots: number; pieces: number; value: number };

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
const worth = ({ price, quantity }: LotView) => (price ?? 0) * quantity;

const keys: Record<Exclude<Order, 'came'>, (lot: LotView) => string | number> = {
  name: (lot) => lot.name,
  finish: (lot) => lot.finish,
  sort: (lot) => lot.sort,
  place: (lot) => lot.place,
  value: worth,
  price: (lot) => lot.price ?? 0,
  pieces: (lot) => lot.quantity,
};

const compare = (a: string | number, b: string | number): number => {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  // What has none stands at the end, whichever way round.
  if (a === '' || b === '') return a === b ? 0 : a === '' ? 1 : -1;
  return collator.compare(String(a), String(b));
};

/**
 * Lots that are looked for: of a place when the words are one, as a scanner types them; else those whose name, number,
 * finish or place holds every word.
 */
export function foundLots(lots: readonly LotView[], find: string): readonly LotView[] {
  const said = find.trim().toLowerCase();
  if (said === '') return lots;
  const there = lots.filter((lot) => lot.place.toLowerCase() === said);
  if (there.length) return there;
  const words = said.split(/\s+/);
  return lots.filter((lot) => {
    const text = `${lot.name} ${lot.entry} ${lot.finish} ${lot.sort} ${lot.place} ${lot.item?.sku ?? ''}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

/** The rows of the table: lots as they are looked for, in order, under the heads of their groups. */
export function shownRows(lots: readonly LotView[], { find, order, isDown, group }: View): ShownRow[] {
  const found = [...foundLots(lots, find)];
  if (order !== 'came') {
    const key = keys[order];
    const sign = isDown ? -1 : 1;
    const at = new Map(found.map((lot) => [lot.id, key(lot)]));
    found.sort((a, b) => {
      const [x, y] = [at.get(a.id) ?? '', at.get(b.id) ?? ''];
      return (x === '' || y === '' ? compare(x, y) : sign * compare(x, y)) || a.id - b.id;
    });
  } else if (isDown) found.reverse();
  if (group === 'none') return found.map((lot) => ({ is: 'lot', id: lot.id }));
  const groups = new Map<string, LotView[]>();
  for (const lot of found) {
    const words = group === 'state' ? stateWords[lot.state] : lot[group];
    const some = groups.get(words);
    if (some) some.push(lot);
    else groups.set(words, [lot]);
  }
  return [...groups]
    .sort(([a], [b]) => compare(a, b))
    .flatMap(([words, some]): ShownRow[] => [
      {
        is: 'group',
        key: words,
        words: words || 'without',
        lots: some.length,
        pieces: some.reduce((sum, lot) => sum + lot.quantity, 0),
        value: some.reduce((sum, lot) => sum + worth(lot), 0),
      },
      ...some.map((lot): ShownRow => ({ is: 'lot', id: lot.id })),
    ]);
}
