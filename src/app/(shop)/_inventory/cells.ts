import { itemField } from '@/core/field/catalogue';
import type { Json } from '@/core/json';
import type { FoundItem } from '@/services/records/items/find-items';
import type { RequestOf } from '@/ui/data/api';
import type { Column } from './columns';
import type { Range } from './use-grid-cursor';

export type Cell = NonNullable<RequestOf<'POST /cells'>['body']>['cells'][number];

const textOf = (item: FoundItem, id: string): string => {
  const value = (item as unknown as Record<string, Json>)[id] ?? null; // the columns that can be typed into are fields of the item
  return itemField(id)?.show(value, { currency: item.currency }) ?? String(value ?? '');
};

/** What a cell shows, as text that can be pasted into another one. */
export function cellText(item: FoundItem, column: Column): string {
  if (column.kind === 'check') return '';
  if (column.kind === 'knot') return item.knots.find((knot) => knot.accountId === column.accountId)?.state ?? 'none';
  return column.id === 'updated' ? item.updatedAt : textOf(item, column.id);
}

/** One cell with what was typed into it; null where nothing can be typed. */
function typed(item: FoundItem | undefined, column: Column | undefined, text: string): Cell | null {
  if (!item || column?.kind !== 'field' || !column.edit) return null;
  return { item: item.id, field: column.edit, text, from: item[column.edit] };
}

/** A block of text, as spreadsheets give it, over the rows and columns from one cell on; what lies outside is left. */
export function pastedCells(text: string, at: Range, items: readonly FoundItem[], columns: readonly Column[]): Cell[] {
  const lines = text
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  const [first = []] = lines;
  // One value over a whole range: each of its cells gets it.
  const isOne = lines.length === 1 && first.length === 1;
  const height = isOne ? at.bottom - at.top + 1 : lines.length;
  const width = isOne ? at.right - at.left + 1 : Math.max(...lines.map((line) => line.length));
  const cells: Cell[] = [];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const said = isOne ? first[0] : lines[row]?.[column];
      const cell = said === undefined ? null : typed(items[at.top + row], columns[at.left + column], said);
      if (cell) cells.push(cell);
    }
  return cells;
}

/** The first row of a range over the rows below it. */
export function filledDown(range: Range, items: readonly FoundItem[], columns: readonly Column[]): Cell[] {
  const top = items[range.top];
  if (!top) return [];
  const cells: Cell[] = [];
  for (let row = range.top + 1; row <= range.bottom; row++)
    for (const column of columns.slice(range.left, range.right + 1)) {
      const cell = typed(items[row], column, cellText(top, column));
      if (cell) cells.push(cell);
    }
  return cells;
}
