import { asc } from 'drizzle-orm';
import { z } from 'zod';
import { usualColumns } from '../../core/table';
import { database } from '../../db/client';
import { columnSet } from '../../db/schema';
import { fileColumns } from '../records/items/file-columns';
import { knownAttributes } from '../records/items/known-attributes';
import { type ExportColumn, otherColumns } from './other-rows';

const columnSchema = z.array(z.object({ id: z.string(), label: z.string() }));

export const columnChoicesSchema = z.object({
  columns: z.array(
    z.object({ id: z.string(), label: z.string(), account: z.number().nullable(), isWritable: z.boolean() }),
  ),
  usual: z.array(z.string()),
  /** Of what is written out to be looked at. */
  others: z.object({ listings: columnSchema, history: columnSchema, sales: columnSchema }),
  sets: z.array(z.object({ id: z.number(), name: z.string(), columns: z.array(z.string()) })),
});
export type ColumnChoices = z.infer<typeof columnChoicesSchema>;

const bare = (columns: readonly ExportColumn[]) => columns.map(({ id, label }) => ({ id, label }));

/** Every column that a file may have, in the order of a sheet, and the sets that were kept. */
export async function findColumns(): Promise<ColumnChoices> {
  const db = database();
  const { all } = await fileColumns(db);
  const sets = await db.select().from(columnSet).orderBy(asc(columnSet.name));
  return {
    columns: all(await knownAttributes(db)).map(({ id, label, place, field }) => ({
      id,
      label,
      account: 'account' in place ? place.account : null,
      isWritable: field !== null,
    })),
    usual: usualColumns,
    others: {
      listings: bare(otherColumns.listings),
      history: bare(otherColumns.history),
      sales: bare(otherColumns.sales),
    },
    sets: sets.map(({ id, name, columns }) => ({ id, name, columns })),
  };
}
