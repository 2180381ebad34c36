import type { AccountView } from '@/services/accounts/find-accounts';
import type { FoundItem } from '@/services/records/items/find-items';
import { filledDown, pastedCells } from './cells';
import { columnsFor } from './columns';
import { rangeOf } from './use-grid-cursor';

test('a range is the same from either corner', () => {
  const range = rangeOf({ row: 5, column: 2 }, { row: 1, column: 7 });
  expect(range).toEqual(rangeOf({ row: 1, column: 7 }, { row: 5, column: 2 }));
  expect(range).toEqual({ top: 1, bottom: 5, left: 2, right: 7 });
});

test('there is a column for every account, between what the item is and the rest', () => {
  const columns = columnsFor([
    { id: 1, name: 'One' },
    { id: 2, name: 'Two' },
  ] as AccountView[]);
  expect(columns.filter((column) => column.kind === 'knot').map((column) => column.label)).toEqual(['One', 'Two']);
  expect(columns[0]?.kind).toBe('check');
  expect(new Set(columns.map((column) => column.id)).size).toBe(columns.length);
});

describe('blocks of cells', () => {
  const columns = columnsFor([{ id: 1, name: 'One' }] as AccountView[]);
  const at = (id: string) => columns.findIndex((column) => column.id === id);
  const items = [1, 2, 3].map(
    (id) =>
      ({
        id,
        title: `Camera ${id}`,
        sku: `A-${id}`,
        condition: 'mint',
        location: `B${id}`,
        quantity: id,
        price: id * 1_000,
        currency: 'EUR',
        knots: [],
      }) as unknown as FoundItem, // the parts that are looked at
  );
  const from = (row: number, id: string) => rangeOf({ row, column: at(id) }, { row, column: at(id) });

  test('text of a spreadsheet goes over rows and columns from one cell on; what lies outside is left', () => {
    const cells = pastedCells('C1\t5\t9,90\r\nC2\t6\t12\r\nC3\t7\t13\r\n', from(1, 'location'), items, columns);
    expect(cells).toEqual([
      { item: 2, field: 'location', text: 'C1', from: 'B2' },
      { item: 2, field: 'quantity', text: '5', from: 2 },
      { item: 2, field: 'price', text: '9,90', from: 2_000 },
      { item: 3, field: 'location', text: 'C2', from: 'B3' },
      { item: 3, field: 'quantity', text: '6', from: 3 },
      { item: 3, field: 'price', text: '12', from: 3_000 },
    ]);
  });

  test('one value goes into every cell of a range; a listing cannot be typed into', () => {
    const range = rangeOf({ row: 0, column: at('price') }, { row: 2, column: at('account-1') });
    expect(pastedCells('7', range, items, columns).map((cell) => [cell.item, cell.field, cell.text])).toEqual([
      [1, 'price', '7'],
      [2, 'price', '7'],
      [3, 'price', '7'],
    ]);
    expect(pastedCells('7', from(0, 'account-1'), items, columns)).toEqual([]);
  });

  test('the first row is filled down, and what is copied can be pasted back', () => {
    const range = rangeOf({ row: 0, column: at('location') }, { row: 2, column: at('price') });
    const filled = filledDown(range, items, columns);
    expect(filled.map((cell) => cell.text)).toEqual(['B1', '1', '10.00', 'B1', '1', '10.00']);
    expect(filledDown(from(0, 'price'), items, columns)).toEqual([]);
  });
});
