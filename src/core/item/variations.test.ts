import fc from 'fast-check';
import {
  type Axis,
  cellText,
  combinationCount,
  combinations,
  copyBlock,
  fillDown,
  pasteBlock,
  regenerate,
  unitsOf,
  type Variation,
  variationColumns,
  variationFaults,
  variationPrice,
  variationSchema,
  withRenamedValue,
} from '.';

const axis = (name: string, ...values: string[]): Axis => ({ name, values });
const colour = axis('Colour', 'black', 'brown', 'tan');
const size = axis('Length', '90 cm', '110 cm');

const anyAxes = fc.uniqueArray(
  fc.record({
    name: fc.string({ minLength: 1, maxLength: 8 }).filter((text) => text.trim() === text),
    values: fc.uniqueArray(
      fc.string({ minLength: 1, maxLength: 6 }).filter((text) => text.trim() === text),
      { minLength: 1, maxLength: 5, selector: (text) => text.toLowerCase() },
    ),
  }),
  { minLength: 1, maxLength: 3, selector: (one) => one.name.toLowerCase() },
);

test('every combination comes once, the last axis changing fastest', () => {
  expect(combinations([colour, size]).slice(0, 3)).toEqual([
    ['black', '90 cm'],
    ['black', '110 cm'],
    ['brown', '90 cm'],
  ]);
  fc.assert(
    fc.property(anyAxes, (axes) => {
      const all = combinations(axes);
      expect(all).toHaveLength(combinationCount(axes));
      expect(new Set(all.map((one) => JSON.stringify(one))).size).toBe(all.length);
    }),
  );
});

test('a table made of its axes never has a fault, and making it again changes nothing', () => {
  fc.assert(
    fc.property(anyAxes, (axes) => {
      const rows = regenerate(axes, []);
      expect(variationFaults(axes, rows)).toEqual([]);
      expect(regenerate(axes, rows)).toEqual(rows);
    }),
  );
});

test('what was written for a combination stays with it, whatever else changes', () => {
  const rows = regenerate([colour, size], []).map((row, index) => ({ ...row, quantity: index + 1, sku: `S-${index}` }));
  const fewer = regenerate([axis('Colour', 'black', 'tan'), size], rows);
  expect(fewer.map((row) => row.quantity)).toEqual([1, 2, 5, 6]);
  const more = regenerate([axis('Colour', 'black', 'red', 'brown', 'tan'), size], rows);
  expect(more.filter((row) => row.values[0] === 'red').every((row) => row.on && row.quantity === 0)).toBe(true);
  expect(unitsOf(more)).toBe(unitsOf(rows));
});

test('adding an axis counts no unit twice', () => {
  const rows = regenerate([colour], []).map((row) => ({ ...row, quantity: 4, sku: `S-${row.values[0]}` }));
  const wider = regenerate([colour, size], rows);
  expect(unitsOf(wider)).toBe(12);
  expect(variationFaults([colour, size], wider)).toEqual([]);
});

test.each([
  ['two axes of one name', [axis('a', 'x'), axis('A', 'y')], 'same name'],
  ['a value twice', [axis('a', 'x', 'X')], 'twice'],
  [
    'too many',
    [
      axis('a', ...Array.from({ length: 100 }, (_, i) => `${i}`)),
      axis('b', ...Array.from({ length: 11 }, (_, i) => `${i}`)),
    ],
    '1100',
  ],
])('%s is a fault', (_what, axes, said) => expect(variationFaults(axes, regenerate(axes, [])).join()).toContain(said));

test('a table of other axes and a number given twice are faults', () => {
  const rows = regenerate([colour], []);
  expect(variationFaults([size], rows)).toContain('The table does not fit its axes');
  expect(
    variationFaults(
      [colour],
      rows.map((row) => ({ ...row, sku: 'S-1' })),
    ).join(),
  ).toContain('stock number');
});

test.each([
  [1_000, null, 1_000],
  [1_000, { kind: 'own', amount: 700 }, 700],
  [1_000, { kind: 'difference', amount: 250 }, 1_250],
  [1_000, { kind: 'difference', amount: -2_000 }, 0],
  [null, { kind: 'difference', amount: 250 }, null],
  [null, { kind: 'own', amount: 700 }, 700],
] as [number | null, Variation['price'], number | null][])('price %j with %j is %j', (item, price, expected) =>
  expect(variationPrice(item, { price })).toBe(expected),
);

const table = regenerate([colour, size], []);
const cell = (top: number, left: number, bottom = top, right = left) => ({ top, left, bottom, right });

test('a pasted block lands where it was put, and what lies outside is left out', () => {
  const { rows, faults, written } = pasteBlock(
    table,
    cell(4, 1),
    'A-1\t3\t+2.50\r\nA-2\t4\t12,90\r\nA-3\t5\t1\r\n',
    'EUR',
  );
  expect(faults).toEqual([]);
  expect(written).toBe(6);
  expect(rows[4]).toMatchObject({ sku: 'A-1', quantity: 3, price: { kind: 'difference', amount: 250 } });
  expect(rows[5]).toMatchObject({ sku: 'A-2', quantity: 4, price: { kind: 'own', amount: 1_290 } });
});

test('one value fills the whole chosen block, a bad cell is named and stays', () => {
  const filled = pasteBlock(table, cell(0, 2, 5, 2), '7', 'EUR');
  expect(filled.rows.every((row) => row.quantity === 7)).toBe(true);
  const bad = pasteBlock(filled.rows, cell(0, 2), 'many\n3', 'EUR');
  expect(bad.faults).toEqual([{ row: 0, column: 'quantity', message: 'A whole number from 0 up' }]);
  expect(bad.rows[0]?.quantity).toBe(7);
  expect(bad.rows[1]?.quantity).toBe(3);
});

test('filling down repeats the first line, stock numbers count on', () => {
  const first = pasteBlock(table, cell(0, 0), 'off\tST-009\t2\t9.90\t123', 'EUR').rows;
  const rows = fillDown(first, cell(0, 0, 3, 4), 'EUR');
  expect(rows.slice(0, 4).map((row) => row.sku)).toEqual(['ST-009', 'ST-010', 'ST-011', 'ST-012']);
  expect(rows.slice(0, 5).map((row) => row.on)).toEqual([false, false, false, false, true]);
});

test('what is copied can be pasted back without a change', () => {
  const anyRow: fc.Arbitrary<Variation> = fc.record({
    values: fc.constant(['a']),
    on: fc.boolean(),
    sku: fc.constantFrom('', 'A-1', 'b/2'),
    quantity: fc.integer({ min: 0, max: 1_000_000 }),
    price: fc.option(fc.record({ kind: fc.constant('own' as const), amount: fc.integer({ min: 0, max: 9_999_999 }) }), {
      nil: null,
    }),
    barcode: fc.constantFrom('', '2044000000015'),
    key: fc.constantFrom('', 'c1'),
  });
  fc.assert(
    fc.property(fc.array(anyRow, { minLength: 1, maxLength: 6 }), (rows) => {
      const block = cell(0, 0, rows.length - 1, variationColumns.length - 1);
      expect(pasteBlock(rows, block, copyBlock(rows, block, 'EUR'), 'EUR').rows).toEqual(rows);
      for (const row of rows) expect(variationSchema.safeParse(row).success).toBe(true);
    }),
  );
});

test('a difference is shown with its sign', () => {
  const row = { ...(table[0] as Variation), price: { kind: 'difference' as const, amount: -150 } };
  expect(cellText(row, 'price', 'EUR')).toBe('-1.50');
});

describe('an axis value that is corrected', () => {
  const axes = [
    { name: 'Colour', values: ['Blck', 'Tan'], photos: { Blck: 'a'.repeat(64) } },
    { name: 'Size', values: ['S', 'Blck'] },
  ];
  const rows = combinations(axes).map((values, at) => ({
    values,
    on: true,
    sku: `N-${at}`,
    quantity: at + 1,
    price: null,
    barcode: '',
    key: `k${at}`,
  }));

  test('keeps its rows with their stock, numbers and photo; the same word on another axis stays', () => {
    const done = withRenamedValue(axes, rows, 0, 'Blck', ' Black ');
    expect(done?.axes).toEqual([
      { name: 'Colour', values: ['Black', 'Tan'], photos: { Black: 'a'.repeat(64) } },
      { name: 'Size', values: ['S', 'Blck'] },
    ]);
    expect(done?.rows.map((row) => [row.values.join('/'), row.sku, row.quantity, row.key])).toEqual([
      ['Black/S', 'N-0', 1, 'k0'],
      ['Black/Blck', 'N-1', 2, 'k1'],
      ['Tan/S', 'N-2', 3, 'k2'],
      ['Tan/Blck', 'N-3', 4, 'k3'],
    ]);
    expect(variationFaults(done?.axes ?? [], done?.rows ?? [])).toEqual([]);
    expect(regenerate(done?.axes ?? [], done?.rows ?? [])).toEqual(done?.rows);
  });

  test('never becomes one that is there already', () => {
    expect(withRenamedValue(axes, rows, 0, 'Blck', 'tan')).toBeNull();
    expect(withRenamedValue(axes, rows, 0, 'Blck', ' ')).toBeNull();
    expect(withRenamedValue(axes, rows, 0, 'Red', 'Green')).toBeNull();
    expect(withRenamedValue(axes, rows, 0, 'Blck', 'blck')?.axes[0]?.values).toEqual(['blck', 'Tan']);
  });
});
