import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { itemFilterSchema } from '../../core/filter';
import { whereOf } from './item-filter';

const id = z.number().int().positive();

/** Which items: named ones, or all that a filter finds but some. */
export const selectionSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('items'), ids: z.array(id).min(1).max(100_000) }),
  z.object({ kind: z.literal('filter'), filter: itemFilterSchema, except: z.array(id).max(100_000).default([]) }),
]);
export type Selection = z.infer<typeof selectionSchema>;

/** The selection as SQL over `i`, the item table. */
export function selectionWhere(selection: Selection): SQL {
  if (selection.kind === 'items') return sql`i.archived = 0 and i.id in ${selection.ids}`;
  const without = selection.except.length ? sql` and i.id not in ${selection.except}` : sql``;
  return sql`${whereOf(selection.filter)}${without}`;
}
