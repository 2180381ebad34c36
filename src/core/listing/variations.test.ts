import fc from 'fast-check';
import { regenerate } from '../item';
import { sampleAccount, sampleItem, sampleRules } from '../testing.test-data';
import { computeListing, fitVariations, readNarrowing } from '.';

const axes = [
  { name: 'Colour', values: ['black', 'tan'] },
  { name: 'Length', values: ['90', '110'] },
];
const rows = regenerate(axes, []).map((row, index) => ({ ...row, quantity: index + 1, sku: `V-${index}` }));
const varied = sampleItem({ axes, variations: rows, quantity: 10, price: 4_000 });
const takes = { maxAxes: 2, maxCombinations: 10 };

const listingFor = (variations: typeof takes | null, overrides = {}, item = varied) =>
  computeListing({
    item,
    overrides,
    account: sampleAccount(sampleRules({ variations, quantity: { max: 999 } })),
  });
const offeredBy = (made: ReturnType<typeof listingFor>) => made.values.find((one) => one.field === 'variations');

test('an item without variations has none anywhere', () => {
  const made = listingFor(takes, {}, sampleItem());
  expect(offeredBy(made)).toMatchObject({ origin: 'unused', issues: [] });
  expect(made.content).not.toHaveProperty('variations');
});

test('where they are taken every combination is sent with its price and stock', () => {
  const made = listingFor(takes);
  expect(made.content.variations).toMatchObject({
    axes,
    rows: [{ values: ['black', '90'], quantity: 1, price: 4_000 }, {}, {}, {}],
  });
  expect(made.content.quantity).toBe(10);
  expect(offeredBy(made)?.issues).toEqual([]);
});

test('where none are taken it is blocked with a mend, until one combination is chosen', () => {
  const blocked = listingFor(null);
  expect(offeredBy(blocked)?.issues[0]).toMatchObject({ blocks: true, fix: { kind: 'variations' } });
  const one = listingFor(null, { variations: { Colour: 'tan', Length: '110' } });
  expect(offeredBy(one)?.issues).toEqual([]);
  expect(one.content.quantity).toBe(4);
  expect(one.content).not.toHaveProperty('variations');
});

test('too many axes can be narrowed to one value', () => {
  const blocked = listingFor({ maxAxes: 1, maxCombinations: 10 });
  expect(offeredBy(blocked)?.issues[0]?.message).toContain('At most 1 axes');
  const narrowed = listingFor({ maxAxes: 1, maxCombinations: 10 }, { variations: { Colour: 'tan' } });
  expect(narrowed.content.variations).toMatchObject({ axes: [{ name: 'Length' }] });
  expect(narrowed.content.quantity).toBe(7);
});

test('a price written for one marketplace moves the combinations that follow the item', () => {
  const item = sampleItem({
    ...varied,
    variations: rows.map((row, index) => ({
      ...row,
      price:
        index === 0
          ? { kind: 'own' as const, amount: 9_900 }
          : index === 1
            ? { kind: 'difference' as const, amount: 500 }
            : null,
    })),
  });
  const { content } = listingFor(takes, { price: 5_000 }, item);
  const offered = content.variations as { rows: { price: number }[] }; // made by the fit above
  expect(offered.rows.map((row) => row.price)).toEqual([9_900, 5_500, 5_000, 5_000]);
});

test('what is switched off is not offered, and a switched-off last one is said', () => {
  const off = sampleItem({ ...varied, variations: rows.map((row) => ({ ...row, on: false })) });
  expect(listingFor(takes, {}, off).ready).toBe(false);
  expect(readNarrowing(['x'])).toEqual({});
});

test('offered units are those of the rows that are on and fit, for any narrowing', () => {
  fc.assert(
    fc.property(
      fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
      fc.constantFrom<Record<string, string>>(
        {},
        { Colour: 'tan' },
        { Length: '90' },
        { Colour: 'black', Length: '110' },
      ),
      (on, narrowing: Record<string, string>) => {
        const variations = rows.map((row, index) => ({ ...row, on: on[index] === true }));
        const fitted = fitVariations({ axes, variations, price: 100 }, takes, narrowing);
        const expected = variations
          .filter(
            (row) =>
              row.on && axes.every((axis, at) => !narrowing[axis.name] || row.values[at] === narrowing[axis.name]),
          )
          .reduce((sum, row) => sum + row.quantity, 0);
        expect(fitted.rows.reduce((sum, row) => sum + row.quantity, 0)).toBe(expected);
        expect(fitted.problem === null).toBe(fitted.rows.length > 0);
      },
    ),
  );
});

test('an axis may be called like any word, also one that every object knows', () => {
  const named = [{ name: 'toString', values: ['a', 'b'] }];
  const fitted = fitVariations({ axes: named, variations: regenerate(named, []), price: 100 }, takes, {});
  expect(fitted).toMatchObject({ problem: null, axes: named });
  expect(fitted.rows).toHaveLength(2);
});
