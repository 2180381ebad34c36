import type { Selection } from '@/services/records/items/selection';
import { addressOfSelection, keepSelection, readSelection, withSelection } from './selection';

const kept = new Map<string, string>();
let room = 5_000_000;
globalThis.localStorage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, text: string) => {
    if (text.length > room) throw new Error('full');
    kept.set(key, text);
  },
} as Storage;
beforeEach(() => {
  kept.clear();
  room = 5_000_000;
});

const items = (from: number, count: number): Selection => ({
  kind: 'items',
  ids: Array.from({ length: count }, (_, at) => from + at),
});
const read = (address: string) => readSelection(new URL(address, 'http://here').searchParams);

test('a short one stands in the address, a long one is kept', () => {
  expect(withSelection('/workbench', items(5, 3))).toBe('/workbench?ids=5%2C6%2C7');
  expect(read(withSelection('/workbench', items(5, 300)))).toEqual(items(5, 300));
  const long = withSelection('/publish', items(5, 10_000), { mode: 'plan' });
  expect(long.length).toBeLessThan(60);
  expect(read(long)).toEqual(items(5, 10_000));
});

test('of several each address leads to its own, also after others', () => {
  const addresses = [1, 2, 3].map((from) => withSelection('/workbench', items(from, 400)));
  expect(new Set(addresses).size).toBe(3);
  expect(addresses.map(read)).toEqual([1, 2, 3].map((from) => items(from, 400)));
});

test('an address that is shown keeps nothing until one goes there', () => {
  const address = addressOfSelection('/workbench', items(1, 400));
  expect(read(address)).toBeNull();
  keepSelection(items(1, 400));
  expect(read(address)).toEqual(items(1, 400));
});

test('a choice of a filter, and one of which a part is meant, are kept whole', () => {
  const filter: Selection = { kind: 'filter', filter: { stage: 'changed' }, except: [7] };
  expect(read(withSelection('/workbench', filter))).toEqual(filter);
  const part: Selection = { ...items(1, 3), narrowed: { field: 'brand', op: 'is', value: 'Brask' } };
  expect(read(withSelection('/workbench', part))).toEqual(part);
});

test('the oldest give way, by number and where the browser has no room', () => {
  const addresses = Array.from({ length: 25 }, (_, from) => withSelection('/workbench', items(from + 1, 400)));
  expect(addresses.map((one) => read(one) !== null)).toEqual(Array.from({ length: 25 }, (_, at) => at >= 5));
  room = 5_000;
  const last = withSelection('/workbench', items(900, 400));
  expect(read(last)).toEqual(items(900, 400));
  room = 10;
  expect(read(withSelection('/workbench', items(1_900, 400)))).toBeNull();
});

test('a few stand in the link itself with what is asked besides, so that it can be passed on', () =>
  expect(withSelection('/publish', { kind: 'items', ids: [4, 5] }, { accounts: '2' })).toBe(
    '/publish?accounts=2&ids=4%2C5',
  ));

test.each(['ids=', 'ids=x,-1,0', ''])('%j names nothing', (search) => expect(read(`/workbench?${search}`)).toBeNull());

test('what is nowhere, or is no selection, is none', () => {
  expect(read('/workbench')).toBeNull();
  expect(read('/workbench?selection=gone')).toBeNull();
  kept.set('netting.selections', '{broken');
  expect(read('/workbench?selection=gone')).toBeNull();
});
