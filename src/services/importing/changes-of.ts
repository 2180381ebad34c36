import type { Change } from '../../core/change';
import type { Item } from '../../core/item';
import type { Json } from '../../core/json';
import { type CellPlan, placeOf } from '../../core/table';
import type { fileImportRow } from '../../db/schema';

export type StagedRow = typeof fileImportRow.$inferSelect;
type Decided = Record<string, 'file' | 'ours'>;

/** Which cells of a row hold: of those changed on both sides only what somebody decided for the file. */
const holding = (row: StagedRow, decided: Decided): CellPlan[] =>
  (row.cells as CellPlan[]).filter(
    (cell) => !cell.isConflict || (row.decided ?? decided[cell.column] ?? 'ours') === 'file',
  ); // written by `checkStep`

/** A row of a file as changes of its item, which is held or only looked at. */
export function changesOf(row: StagedRow, item: Item, decided: Decided): Change[] {
  return holding(row, decided).flatMap((cell): Change[] => {
    const place = placeOf(cell.column);
    if (!place || place.of === 'row' || place.of === 'remote') return [];
    if (place.of === 'listing')
      return [{ target: { item: item.id, account: place.account }, field: place.field, ...overrideOf(cell) }];
    const combination = row.combination || undefined;
    const units = combination ? item.variations.find((one) => one.key === combination)?.quantity : item.quantity;
    const to = cell.more === undefined ? cell.to : (units ?? 0) + cell.more;
    // What was changed since it was compared is not overwritten unseen; units that are added stay so many more.
    const from = cell.more === undefined ? { from: cell.from } : {};
    return [{ target: { item: item.id, ...(combination ? { combination } : {}) }, field: place.field, to, ...from }];
  });
}

/** Nothing said for an account alone: the listing follows the item again. */
const overrideOf = ({ to }: CellPlan): { to?: Json } =>
  to === null || to === '' || (Array.isArray(to) && to.length === 0) ? {} : { to };
