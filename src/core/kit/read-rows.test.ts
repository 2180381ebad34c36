import { readContentRows } from '.';

const rates = [{ from: 'EUR', to: 'USD', millionths: 1_100_000, date: '2026-11-01' }];

test('columns in any order, by several names; what a row says besides comes with it', () => {
  const { lines, faults } = readContentRows(
    [
      ['Qty', 'Entry', 'Colour', 'Grade', 'Price', 'Drawer', 'Note', 'Weight', 'Category', 'Kind', 'What ever'],
      ['3', 'LB9001', 'black', 'Good', '4.50', 'A1', 'Washed', '420 g', 'Tanks', 'spare', 'x'],
      ['', 'LB9002', '', '', 'USD 11.00', '', '', '', '', '', ''],
      ['', '', '', '', '', '', '', '', '', '', ''],
    ],
    rates,
  );
  expect(faults).toEqual([]);
  expect(lines).toEqual([
    {
      entry: 'LB9001',
      name: '',
      finish: 'black',
      quantity: 3,
      grams: 420,
      sort: 'Tanks',
      kind: 'spare',
      isSet: false,
      said: { condition: 'good', price: 450, place: 'A1', comment: 'Washed' },
    },
    expect.objectContaining({ entry: 'LB9002', quantity: 1, said: expect.objectContaining({ price: 1_000 }) }),
  ]);
});

test.each([
  [['about ten', 'LB1', '', ''], 'whole number of pieces'],
  [['2.5', 'LB1', '', ''], 'whole number of pieces'],
  [['1', '', '', ''], 'What it is, is missing'],
  [['1', 'LB1', '4.00 XYZ', ''], 'no exchange rate to XYZ is known'],
  [['1', 'LB1', '$4.00', ''], 'no exchange rate to $ is known'],
  [['1', 'LB1', 'cheap', ''], 'no exchange rate'],
  [['1', 'LB1', '0', ''], 'is no price'],
  [['1', 'LB1', '', 'shiny'], 'is no condition'],
])('the row %j is refused by its number', (row, why) => {
  const { lines, faults } = readContentRows([['pieces', 'number', 'price', 'condition'], row], rates);
  expect(lines).toEqual([]);
  expect(faults).toEqual([expect.objectContaining({ line: 2, why: expect.stringContaining(why) })]);
});

test('a file without a column for what the things are is told', () => {
  expect(readContentRows([['a', 'b']], rates).faults[0]).toMatchObject({ line: 1 });
});
