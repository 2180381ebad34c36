import { itemFieldIds } from '@/core/field/item-fields';
import { sampleItem } from '@/core/testing.test-data';
import type { ItemSheet, SheetColumn } from '@/services/items/item-sheet';
import { rowsFor, shownRows } from './rows';

const field = (name: string, label: string) => ({
  field: name,
  label,
  value: null,
  origin: 'master' as const,
  issues: [],
  kind: { is: 'text' as const, most: 100 },
  editable: true,
});
const column = (accountId: number, fields: ReturnType<typeof field>[]) =>
  ({ accountId, fields }) as unknown as SheetColumn;

const sheet = (columns: SheetColumn[]): ItemSheet => ({
  item: sampleItem({ attributes: { Colour: 'Black', 'Own thing': 'x' } }),
  columns,
  customFields: [],
  rowPlan: null,
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
  expect(colour[0]?.field?.id).toBe('attributes.Colour');
  expect(colour[0]?.fieldOf(column(2, [field('attr.tint', 'Colour')]))?.field).toBe('attr.tint');
  expect(rows.map((row) => row.label)).toEqual(expect.arrayContaining(['Own thing', 'Size']));
});

test('a marketplace’s own field stands in a row of its own, not written in the item', () => {
  const rows = rowsFor(sheet([column(1, [field('extra.returns', 'Returns')])]));
  expect(rows.find((row) => row.label === 'Returns')?.field).toBeNull();
});

test('brand and model are fields of the item and get no second row', () => {
  const rows = rowsFor(sheet([column(1, [field('attr.model', 'Model'), field('attr.brand', 'Brand')])]));
  const both = rows.filter((row) => row.label === 'Model' || row.label === 'Brand');
  expect(both).toHaveLength(2);
  // What the marketplace asks for stands beside them.
  expect(both[1]?.fieldOf(column(1, [field('attr.model', 'Model')]))?.field).toBe('attr.model');
});

test('every row has its own name', () => {
  const ids = rowsFor(sheet([column(1, [field('attr.colour', 'Colour'), field('extra.decade', 'Decade')])])).map(
    (row) => row.id,
  );
  expect(new Set(ids).size).toBe(ids.length);
});

test('the rows are the catalogue’s, in its order: nothing that an item holds is missing', () => {
  const custom = { key: 'shelf', label: 'Shelf', type: 'text', choices: [], most: null, from: null, to: null } as const;
  const rows = rowsFor({
    ...sheet([]),
    customFields: [{ ...custom, choices: [], category: '', copied: true }],
  });
  const ids = rows.map((row) => row.id);
  expect(ids.slice(0, 6)).toEqual(['title', 'brand', 'model', 'category', 'condition', 'conditionNote']);
  expect(ids).toEqual(expect.arrayContaining(['tags', 'quantity', 'variations', 'size', 'photos', 'own.shelf', 'sku']));
  expect(ids.indexOf('attributes.Colour')).toBeLessThan(ids.indexOf('own.shelf'));
  expect(ids.indexOf('own.shelf')).toBeLessThan(ids.indexOf('sku'));
  const shown = new Set(rows.flatMap((row) => (row.field ? [row.field.id] : [])));
  // Axes stand with the variations, width and height with the length.
  expect(itemFieldIds.filter((id) => !shown.has(id))).toEqual(['axes', 'widthMm', 'heightMm', 'attributes', 'own']);
});

describe('what one marketplace has for itself', () => {
  const of = (accountId: number, marketName: string, fields: object[]) =>
    ({ accountId, marketName, fields }) as unknown as SheetColumn;
  const missing = { ...field('extra.returns', 'Returns'), issues: [{ blocks: true }] };
  const written = { ...field('extra.section', 'Section'), origin: 'override' as const };
  const columns = [
    of(1, 'Hallowick', [field('extra.ads', 'Advertising'), missing, field('extra.both', 'Both')]),
    of(2, 'Oakhand', [written, field('extra.both', 'Both')]),
  ];
  const rows = rowsFor(sheet(columns));
  const labels = (plan: { hidden: string[]; order: string[] } | null, open: string[] = []) =>
    shownRows(rows, columns, plan, open)
      .map((row) => row.label)
      .filter((label) => ['Advertising', 'Returns', 'Section', 'Both'].includes(label));

  test('is folded, but for what is missing, what is written there, and what several have', () => {
    expect(labels(null)).toEqual(['Both', 'Returns', 'Section']);
    expect(labels(null, ['Hallowick'])).toEqual(['Both', 'Advertising', 'Returns', 'Section']);
  });

  test('a hidden row shows itself while somebody asks for what is missing in it', () => {
    expect(labels({ hidden: ['extras.Both', 'extras.Returns'], order: [] })).toEqual(['Returns', 'Section']);
  });
});
