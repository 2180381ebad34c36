import fc from 'fast-check';
import { fieldsFor } from '../field';
import { type Item, type Variation, variationFaults } from '../item';
import type { Json } from '../json';
import { sampleItem } from '../testing.test-data';
import {
  type Applied,
  applyChanges,
  type Change,
  type DoneChange,
  type ItemRecord,
  invert,
  keyed,
  movesBetween,
} from '.';

const catalogue = fieldsFor([
  {
    key: 'shelf',
    label: 'Shelf',
    type: 'text',
    choices: [],
    most: 6,
    from: null,
    to: null,
    category: '',
    copied: true,
  },
]);
let made = 0;
const options = { catalogue, newKey: () => `k${++made}` };
const euro = { currency: 'EUR' };
const record = (part: Partial<Item> = {}, overrides: [number, Record<string, Json>][] = []): ItemRecord => ({
  item: sampleItem(part),
  overrides: new Map(overrides),
});
const done = (result: ReturnType<typeof applyChanges>): Applied => {
  if ('refused' in result) throw new Error(result.refused.why);
  return result;
};
const row = (values: string[], key: string, quantity: number): Variation => ({
  values,
  key,
  quantity,
  on: true,
  sku: '',
  price: null,
  barcode: '',
});
const varied = () =>
  record({
    axes: [{ name: 'Colour', values: ['black', 'tan'] }],
    variations: [row(['black'], 'a', 3), row(['tan'], 'b', 2)],
    quantity: 5,
  });
const item = (field: string, to: Json, from?: Json): Change => ({
  target: { item: 1 },
  field,
  to,
  ...(from === undefined ? {} : { from }),
});

/** What takes these changes back, newest first; a change that cannot be is an error here. */
function inverseOf(changes: readonly DoneChange[]): Change[] {
  return [...changes].reverse().map((change): Change => {
    const { account, combination } = change.target;
    const field =
      combination !== undefined
        ? catalogue.combination(change.field)
        : account !== undefined
          ? catalogue.listing(change.field)
          : catalogue.item(change.field);
    if (!field) throw new Error(`no field ${change.field}`);
    const inverse = invert(change, change.to, field);
    if (inverse.kind !== 'restore') throw new Error(`${change.field} was changed since`);
    if (account !== undefined && inverse.to === null) return { target: change.target, field: change.field };
    return { target: change.target, field: change.field, to: inverse.to };
  });
}

const word = fc.string({ minLength: 0, maxLength: 20 });
const anyChange: fc.Arbitrary<Change> = fc.oneof(
  word.map((text) => item('title', text)),
  word.map((text) => item('notes', text)),
  word.map((text) => item('attributes.Colour', text)),
  fc.option(fc.integer({ min: 0, max: 99_999 }), { nil: null }).map((price) => item('price', price)),
  fc.integer({ min: 0, max: 99 }).map((units) => item('quantity', units)),
  fc.array(word.filter(Boolean), { maxLength: 4 }).map((words) => item('keywords', words)),
  fc.constantFrom('good', 'mint', null).map((grade) => item('condition', grade)),
  fc.option(fc.string({ minLength: 1, maxLength: 6 }), { nil: null }).map((shelf) => item('own.shelf', shelf)),
  fc.tuple(fc.constantFrom(7, 8), word.filter(Boolean)).map(([account, text]) => ({
    target: { item: 1, account },
    field: 'title',
    to: text,
  })),
  fc.constantFrom(7, 8).map((account): Change => ({ target: { item: 1, account }, field: 'title' })),
);
const changesOf = fc.array(anyChange, { minLength: 1, maxLength: 6 });

test('a change and its inverse are nothing, in the item, for the accounts and in the ledger', () => {
  fc.assert(
    fc.property(changesOf, (changes) => {
      const before = record({}, [[7, { title: 'Own words' }]]);
      const there = done(applyChanges(before, changes, options));
      const back = done(applyChanges(there.record, inverseOf(there.changes), options));
      expect(back.record.item).toEqual(before.item);
      for (const account of [7, 8])
        expect(back.record.overrides.get(account) ?? {}).toEqual(before.overrides.get(account) ?? {});
      const units = (applied: Applied) => applied.moves.reduce((sum, move) => sum + move.delta, 0);
      expect(units(there) + units(back)).toBe(0);
    }),
  );
});

test('equal values make no change', () => {
  fc.assert(
    fc.property(changesOf, (changes) => {
      const there = done(applyChanges(record(), changes, options)).record;
      const same = catalogue.fields
        .filter((field) => field.on === 'item' && field.id !== 'photos' && field.id !== 'flaws')
        .map((field) =>
          item(field.id, structuredClone((there.item as unknown as Record<string, Json>)[field.id] ?? field.empty)),
        )
        .filter((one) => one.field !== 'own.shelf');
      const again = done(applyChanges(there, same, options));
      expect(again.changes).toEqual([]);
      expect(again.moves).toEqual([]);
    }),
  );
});

test('what is said to have become different is what did, and nothing else', () => {
  fc.assert(
    fc.property(changesOf, (changes) => {
      const before = record();
      const there = done(applyChanges(before, changes, options));
      const named = new Set(there.changes.filter((one) => one.target.account === undefined).map((one) => one.field));
      for (const field of catalogue.fields.filter((one) => one.on === 'item')) {
        const [a, b] = [before.item, there.record.item].map((one) =>
          field.show((one as never)[field.id] ?? field.empty, euro),
        );
        if (field.id !== 'photos' && field.id !== 'attributes' && !field.id.startsWith('own') && a !== b)
          expect(named).toContain(field.id);
      }
    }),
  );
});

test('a value that somebody else changed meanwhile is not overwritten: the item stays as it is, and theirs is said', () => {
  const result = applyChanges(record(), [item('brand', 'Orvane'), item('title', 'Mine', 'Of before')], options);
  expect(result).toEqual({
    refused: {
      item: 1,
      field: 'title',
      kind: 'conflict',
      why: 'It was changed meanwhile',
      now: sampleItem().title,
    },
  });
});

test.each([
  [item('nothing', 1), 'There is no such field'],
  [item('price', -1), 'Not below zero'],
  [item('title', 'x'.repeat(301)), 'At most 300 characters'],
  [item('quantity', -1), 'Only 1 in stock, 2 cannot be taken away'],
  [item('own', { shelf: 'too long' }), 'Shelf has at most 6 characters'],
  [{ target: { item: 1, account: 7 }, field: 'sku', to: 'X' }, 'The stock number is the same everywhere'],
  [{ target: { item: 1, account: 7 }, field: 'price', to: 'much' }, 'A whole number is needed'],
  [{ target: { item: 1, combination: 'gone' }, field: 'quantity', to: 1 }, 'This combination is gone'],
] as [Change, string][])('%j is refused: %s', (change, why) =>
  expect(applyChanges(record(), [change], options)).toMatchObject({ refused: { why } }),
);

describe('units', () => {
  test('of a combination move it and the sum; the ledger says which', () => {
    const sold = done(
      applyChanges(varied(), [{ target: { item: 1, combination: 'b' }, field: 'quantity', to: 0 }], options),
    );
    expect(sold.record.item.quantity).toBe(3);
    expect(sold.moves).toEqual([{ combination: 'b', delta: -2, place: 'here', account: null }]);
    expect(sold.changes).toEqual([{ target: { item: 1, combination: 'b' }, field: 'quantity', from: 2, to: 0 }]);
  });

  test('of an item with combinations are not written as one number', () => {
    expect(applyChanges(varied(), [item('quantity', 9)], options)).toMatchObject({
      refused: { why: 'Its stock is counted by its variations' },
    });
  });

  test('survive the renaming of a value, and move with the axes', () => {
    const renamed = done(
      applyChanges(
        varied(),
        [
          item('axes', [{ name: 'Shade', values: ['black', 'cognac'] }]),
          item('variations', [row(['black'], 'a', 3), row(['cognac'], 'b', 2)] as unknown as Json),
        ],
        options,
      ),
    );
    expect(renamed.moves).toEqual([]);
    const none = done(applyChanges(varied(), [item('axes', []), item('variations', [])], options));
    expect(none.record.item.quantity).toBe(5);
    expect(none.moves.reduce((sum, move) => sum + move.delta, 0)).toBe(0);
  });

  test('the table’s difference is what moves, whatever table is written', () => {
    const tables = fc.array(fc.tuple(fc.constantFrom('a', 'b', ''), fc.integer({ min: 0, max: 9 })), { maxLength: 2 });
    fc.assert(
      fc.property(tables, (cells) => {
        const values = ['black', 'tan'];
        const rows = values.map((value, at) =>
          row([value], at === 0 ? 'a' : cells[0]?.[0] === 'b' ? 'b' : '', cells[at]?.[1] ?? 0),
        );
        const before = varied();
        const there = done(applyChanges(before, [item('variations', rows as unknown as Json)], options));
        for (const one of there.record.item.variations) {
          const had = before.item.variations.find((other) => other.key === one.key)?.quantity ?? 0;
          const moved = there.moves
            .filter((move) => move.combination === one.key)
            .reduce((sum, move) => sum + move.delta, 0);
          expect(had + moved).toBe(one.quantity);
        }
        expect(there.record.item.quantity).toBe(rows.reduce((sum, one) => sum + one.quantity, 0));
      }),
    );
  });

  test('what was sold since stays sold when a count is taken back', () => {
    const quantity = catalogue.item('quantity');
    const price = catalogue.item('price');
    if (!quantity || !price) throw new Error('fields of every item');
    expect(invert({ from: 100, to: 95 }, 80, price)).toEqual({ kind: 'changed-since', now: 80 });
    expect(invert({ from: 5, to: 8 }, 7, quantity)).toEqual({ kind: 'restore', to: 4 });
    expect(invert({ from: 0, to: 8 }, 2, quantity)).toEqual({ kind: 'changed-since', now: 2 });
  });

  test('a table taken back keeps what was sold off it since', () => {
    const field = catalogue.item('variations');
    if (!field) throw new Error('a field of every item');
    const from = [row(['black'], 'a', 3), row(['tan'], 'b', 2)] as unknown as Json;
    const to = [row(['black'], 'a', 9), { ...row(['tan'], 'b', 2), barcode: '1' }] as unknown as Json;
    const now = [row(['black'], 'a', 7), { ...row(['tan'], 'b', 1), barcode: '1' }] as unknown as Json;
    expect(invert({ from, to }, now, field)).toEqual({
      kind: 'restore',
      to: [row(['black'], 'a', 1), row(['tan'], 'b', 1)],
    });
    const other = [row(['black'], 'a', 7), row(['tan'], 'b', 1)] as unknown as Json;
    expect(invert({ from, to }, other, field)).toMatchObject({ kind: 'changed-since' });
  });
});

test('a combination keeps its key by its values, a new one gets one of its own', () => {
  const before = [row(['black'], 'a', 1), row(['tan'], 'b', 1)];
  const rows = keyed([row(['tan'], '', 1), row(['green'], '', 1), row(['black'], 'a', 1)], before, () => 'new');
  expect(rows.map((one) => one.key)).toEqual(['b', 'new', 'a']);
  expect(variationFaults([{ name: 'Colour', values: ['tan', 'green', 'black'] }], rows)).toEqual([]);
  expect(movesBetween(varied().item, varied().item)).toEqual([]);
});

test('an account at which one value alone is offered follows when that value is written otherwise, and back with an undo', () => {
  const before: ItemRecord = {
    ...varied(),
    overrides: new Map<number, Record<string, Json>>([
      [7, { variations: { Colour: 'tan' } }],
      [8, { title: 'Own' }],
    ]),
  };
  const tan = before.item.variations[1];
  const changes = [
    item('axes', [{ name: 'Colour', values: ['black', 'Tan brown'] }]),
    item('variations', [before.item.variations[0] ?? null, { ...tan, values: ['Tan brown'] }] as Json),
  ];
  const result = done(applyChanges(before, changes, options));
  expect(result.record.overrides.get(7)).toEqual({ variations: { Colour: 'Tan brown' } });
  expect(result.record.overrides.get(8)).toEqual({ title: 'Own' });
  expect(result.changes.map((one) => [one.target.account, one.field])).toContainEqual([7, 'variations']);
  const back = done(applyChanges(result.record, inverseOf(result.changes), options));
  expect(back.record.overrides).toEqual(before.overrides);
  expect(back.record.item).toEqual(before.item);
  // A value that is gone is no other value: what is said there stays, and is told to be chosen again.
  const gone = [
    item('axes', [{ name: 'Colour', values: ['black'] }]),
    item('variations', [before.item.variations[0]] as Json),
  ];
  expect(done(applyChanges(before, gone, options)).record.overrides).toEqual(before.overrides);
});

test('units that lie elsewhere move by place and account, and are the sum of their moves', () => {
  const way = done(applyChanges(record(), [item('quantity', 1), item('elsewhere', { 'way:7': '2' })], options));
  const there = done(applyChanges(way.record, [item('elsewhere', { 'way:7': '1', 'there:7': '1' })], options));
  expect(way.moves.filter((one) => one.place !== 'here')).toEqual([
    { combination: null, delta: 2, place: 'way', account: 7 },
  ]);
  expect(there.moves).toEqual([
    { combination: null, delta: -1, place: 'way', account: 7 },
    { combination: null, delta: 1, place: 'there', account: 7 },
  ]);
});
