import type { LotView } from '@/services/kits/find-kit';
import { foundLots, shownRows, type View } from './shown-rows';

const lot = (id: number, some: Partial<LotView>): LotView =>
  ({
    id,
    version: 1,
    entry: `LB${id}`,
    name: `Tray ${id}`,
    finish: '',
    sort: '',
    condition: null,
    quantity: 1,
    grams: null,
    price: null,
    basis: null,
    isKept: false,
    tiers: [],
    comment: '',
    place: '',
    state: 'open',
    meant: 'add',
    from: [],
    edited: [],
    item: null,
    ...some,
  }) as LotView; // whatever else a lot has is not looked at
const lots = [
  lot(1, { name: 'Tray 10', finish: 'black', place: 'A10', price: 100, quantity: 2 }),
  lot(2, { name: 'Tray 9', finish: 'chrome', place: 'A9', price: 900 }),
  lot(3, { name: 'Clip', place: '', price: null, state: 'later' }),
  lot(4, { name: 'Clip A9', finish: 'black', place: 'A1' }),
];
const view = (some: Partial<View> = {}): View => ({ find: '', order: 'came', isDown: false, group: 'none', ...some });
const ids = (some: Partial<View>) => shownRows(lots, view(some)).flatMap((row) => (row.is === 'lot' ? [row.id] : []));

test('in order by numbers within words; what has none stands at the end, whichever way round', () => {
  expect(ids({})).toEqual([1, 2, 3, 4]);
  expect(ids({ isDown: true })).toEqual([4, 3, 2, 1]);
  expect(ids({ order: 'name' })).toEqual([3, 4, 2, 1]);
  expect(ids({ order: 'place' })).toEqual([4, 2, 1, 3]);
  expect(ids({ order: 'place', isDown: true })).toEqual([1, 2, 4, 3]);
  expect(ids({ order: 'value', isDown: true })).toEqual([2, 1, 3, 4]);
});

test('a place that is scanned shows its drawer; other words are looked for everywhere', () => {
  expect(foundLots(lots, ' a9 ').map((one) => one.id)).toEqual([2]);
  expect(foundLots(lots, 'tray black').map((one) => one.id)).toEqual([1]);
  expect(foundLots(lots, 'lb3').map((one) => one.id)).toEqual([3]);
  expect(foundLots(lots, 'nothing')).toEqual([]);
});

test('groups with what they come to, those without at the end', () => {
  expect(shownRows(lots, view({ group: 'finish' }))).toEqual([
    { is: 'group', key: 'black', words: 'black', lots: 2, pieces: 3, value: 200 },
    { is: 'lot', id: 1 },
    { is: 'lot', id: 4 },
    { is: 'group', key: 'chrome', words: 'chrome', lots: 1, pieces: 1, value: 900 },
    { is: 'lot', id: 2 },
    { is: 'group', key: '', words: 'without', lots: 1, pieces: 1, value: 0 },
    { is: 'lot', id: 3 },
  ]);
  expect(shownRows(lots, view({ group: 'state' })).filter((row) => row.is === 'group')).toMatchObject([
    { words: 'kept for later' },
    { words: 'open', lots: 3 },
  ]);
});
