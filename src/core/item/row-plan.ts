import { z } from 'zod';
import { ownValue } from '../json';

const rowId = z.string().min(1).max(120);

/** Which rows of the sheet are hidden for items of a category, and in which order the others stand. */
export const rowPlanSchema = z.object({ hidden: z.array(rowId).max(300), order: z.array(rowId).max(300) }).strict();
export type RowPlan = z.infer<typeof rowPlanSchema>;

/** Plans by own category, such as `cameras/slr`; the empty one is for all that have none. */
export type RowPlans = Record<string, RowPlan>;

/** The plan that holds for a category: its own, else that of the nearest one above it, else the one for all. */
export function planFor(plans: RowPlans, category: string): RowPlan | null {
  for (let at = category; ; at = at.includes('/') ? at.slice(0, at.lastIndexOf('/')) : '') {
    const found = ownValue(plans, at);
    if (found) return found;
    if (at === '') return null;
  }
}

/**
 * Rows in the order that was chosen. One that the order does not know, because it came later, stands behind the one that
 * it follows by nature.
 */
export function arranged<Row extends { id: string }>(rows: readonly Row[], order: readonly string[]): Row[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  const placed = [...new Set(order)].flatMap((id) => byId.get(id) ?? []);
  const known = new Set(placed.map((row) => row.id));
  rows.forEach((row, at) => {
    if (known.has(row.id)) return;
    const before = rows[at - 1];
    const place = before ? placed.findIndex((one) => one.id === before.id) + 1 : 0;
    placed.splice(place, 0, row);
    known.add(row.id);
  });
  return placed;
}
