import fc from 'fast-check';
import { addressOf, addressParts, type Filter, itemFilterSchema, readFilter, writeParts } from '.';
import { plainConditions } from './plain';
import { sayFilter } from './say';

const context = {
  currency: 'EUR',
  custom: [],
  accountName: (id: number) => ({ 7: 'Hallowick' })[id] ?? String(id),
};

const condition: fc.Arbitrary<Filter> = fc.oneof(
  fc.record({
    field: fc.constantFrom('brand', 'location', 'attributes.Colour', 'own.shelf'),
    op: fc.constantFrom('is' as const, 'begins' as const, 'not' as const),
    value: fc.string({ maxLength: 12 }),
  }),
  fc.record({
    field: fc.constantFrom('price', 'quantity', 'photoCount'),
    op: fc.constant('between' as const),
    value: fc.tuple(fc.option(fc.nat(9_999)), fc.option(fc.nat(9_999))),
  }),
);
const part: fc.Arbitrary<Filter> = fc.oneof(
  condition,
  fc.record({ any: fc.array(condition, { maxLength: 3 }) }),
  fc.constantFrom<Filter>({ listing: { account: 7 } }, { listing: { account: 7, state: 'live' } }),
);

test('the parts that a page writes into the address are the parts that it reads there', () => {
  fc.assert(
    fc.property(fc.array(part, { maxLength: 6 }), (parts) => {
      const where = writeParts(parts) ?? undefined;
      expect(itemFilterSchema.safeParse({ where }).success).toBe(true);
      expect(addressParts({ where })).toEqual(parts);
      expect(readFilter({ where })).toEqual({ all: parts });
    }),
  );
});

test('a search that was kept opens as what it was', () => {
  const stage: Filter = { stage: 'live' };
  const words: Filter = { words: 'red strap' };
  fc.assert(
    fc.property(fc.array(part, { maxLength: 4 }), fc.subarray([words, stage]), (parts, more) => {
      expect(readFilter(addressOf({ all: [...more, ...parts] }))).toEqual({ all: [...more, ...parts] });
    }),
  );
  expect(readFilter(addressOf(stage))).toEqual({ all: [stage] });
});

test('what is said the short way means the same when it is written in the one form', () => {
  const short = itemFilterSchema.parse({
    account: '7',
    state: 'draft',
    brand: 'Brask',
    category: 'lenses',
    priceMin: '500',
    photosMax: '0',
    own: 'shelf:B:1',
  });
  const parts = addressParts(short);
  expect(readFilter({ q: 'words', where: writeParts(parts) ?? undefined })).toEqual(
    readFilter({ ...short, q: 'words' }),
  );
  expect(parts).toContainEqual({ field: 'own.shelf', op: 'is', value: 'B:1' });
  expect(parts).toContainEqual({ field: 'photoCount', op: 'between', value: [null, 0] });
});

test.each<[Filter, string]>([
  [{ field: 'price', op: 'between', value: [500, null] }, 'Price is at least 5.00'],
  [{ field: 'price', op: 'between', value: [500, 1_250] }, 'Price is between 5.00 and 12.50'],
  [{ field: 'photoCount', op: 'between', value: [null, 3] }, 'Number of photos is at most 3'],
  [{ listing: { account: 7, state: 'draft' } }, 'Draft on Hallowick'],
  [{ listing: { account: 9 } }, 'Listed on 9'],
  [{ stage: 'drift' }, 'Changed there'],
  [{ any: [] }, 'Nothing'],
  [
    {
      any: [
        { field: 'category', op: 'is', value: 'film' },
        { field: 'category', op: 'begins', value: 'film/' },
      ],
    },
    'Category is film or Category begins with film/',
  ],
  [
    {
      all: [
        { words: 'red strap' },
        {
          any: [
            { field: 'brand', op: 'empty' },
            { field: 'brand', op: 'is', value: 'Brask' },
          ],
        },
      ],
    },
    '“red strap” and (Brand is empty or Brand is Brask)',
  ],
])('%j reads %s', (filter, words) => expect(sayFilter(filter, context)).toBe(words));

test('only a plain list of conditions is one for the editor; anything else is left alone', () => {
  const brand: Filter = { field: 'brand', op: 'is', value: 'Brask' };
  expect(plainConditions(null)).toEqual([]);
  expect(plainConditions({ all: [brand] })).toEqual([brand]);
  expect(plainConditions({ any: [brand] })).toBeNull();
  expect(plainConditions({ all: [brand, { stage: 'live' }] })).toBeNull();
});
