import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { filterSchema, itemFilterSchema, readFilter } from '../../../core/filter';
import { knowNetsFor } from '../listings/know-nets';
import { filterTerm } from './filter-sql';
import { workedWith } from './item-filter';

const id = z.number().int().positive();

const narrowed = filterSchema.optional().describe('Of these only what this finds');

/** Which items: named ones, or all that a filter finds but some; of them, where it is said, a part. */
export const selectionSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('items'), ids: z.array(id).min(1).max(100_000), narrowed }),
  z.object({
    kind: z.literal('filter'),
    filter: itemFilterSchema,
    except: z.array(id).max(100_000).default([]),
    narrowed,
  }),
]);
export type Selection = z.infer<typeof selectionSchema>;

/** The selection as SQL over `i`, the item table. */
export function selectionWhere({ narrowed: part, ...selection }: Selection): SQL {
  if (selection.kind === 'items') return sql`i.id in ${selection.ids}${part ? sql` and ${filterTerm(part)}` : sql``}`;
  const without = selection.except.length ? sql` and i.id not in ${selection.except}` : sql``;
  const { all } = readFilter(selection.filter);
  return sql`${workedWith({ all: part ? [...all, part] : all })}${without}`;
}

/** Before a selection is looked up: what its filters ask for is known. */
export const knowSelection = (selection: Selection): Promise<void> =>
  knowNetsFor([selection.narrowed, selection.kind === 'filter' ? readFilter(selection.filter) : undefined], 0);
