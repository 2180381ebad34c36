import type { AccountView } from '@/services/accounts/find-accounts';
import { columnsFor } from './columns';
import { inRange, rangeOf } from './use-grid-cursor';

test('a range is the same from either corner', () => {
  const range = rangeOf({ row: 5, column: 2 }, { row: 1, column: 7 });
  expect(range).toEqual(rangeOf({ row: 1, column: 7 }, { row: 5, column: 2 }));
  expect(inRange(range, 3, 4)).toBe(true);
  expect(inRange(range, 0, 4)).toBe(false);
  expect(inRange(null, 0, 0)).toBe(false);
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
