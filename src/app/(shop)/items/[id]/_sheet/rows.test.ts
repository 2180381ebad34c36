import { sampleItem } from '@/core/testing.test-data';
import type { ItemSheet, SheetColumn } from '@/services/items/item-sheet';
import { rowsFor } from './rows';

const field = (name: string, label: string) => ({
  field: name,
  label,
  value: null,
  origin: 'master' as const,
  issues: [],
  type: 'text' as const,
});
const column = (accountId: number, fields: ReturnType<typeof field>[]) =>
  ({ accountId, fields }) as unknown as SheetColumn;

const sheet = (columns: SheetColumn[]): ItemSheet => ({
  item: sampleItem({ attributes: { Colour: 'Black', 'Own thing': 'x' } }),
  columns,
  customFields: [],
});

test('attributes of the same name on several marketplaces share a row with the item’s', () => {
  const rows = rowsFor(
    sheet([
      column(1, [field('attr.colour', 'Colour')]),
      column(2, [field('attr.tint', 'Colour'), field('attr.size', 'Size')]),
    ]),
  );
  const colour = rows.filter((row) => row.label === 'Colour');
  expect(colour).toHaveLength(1);
  expect(colour[0]?.master).toEqual({ kind: 'attribute', name: 'Colour' });
  expect(colour[0]?.fieldOf(column(2, [field('attr.tint', 'Colour')]))?.field).toBe('attr.tint');
  expect(rows.map((row) => row.label)).toEqual(expect.arrayContaining(['Own thing', 'Size']));
});

test('a marketplace’s own field stands in a row of its own, not written in the item', () => {
  const rows = rowsFor(sheet([column(1, [field('extra.returns', 'Returns')])]));
  expect(rows.find((row) => row.label === 'Returns')?.master).toEqual({ kind: 'none' });
});

test('brand and model are fields of the item and get no second row', () => {
  const rows = rowsFor(sheet([column(1, [field('attr.model', 'Model'), field('attr.brand', 'Brand')])]));
  expect(rows.filter((row) => row.label === 'Model' || row.label === 'Brand')).toHaveLength(2);
});

test('every row has its own name', () => {
  const ids = rowsFor(sheet([column(1, [field('attr.colour', 'Colour'), field('extra.decade', 'Decade')])])).map(
    (row) => row.id,
  );
  expect(new Set(ids).size).toBe(ids.length);
});
