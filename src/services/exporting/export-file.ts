import type { Readable } from 'node:stream';
import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { homeCurrency } from '../../core/measure';
import { type Column, exportHeader, lookedAtColumn, placeOf } from '../../core/table';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { type Format, formats } from '../../files';
import { fileColumns } from '../records/items/file-columns';
import { findExport } from './find-exports';

export const exportFileSchema = z.object({
  format: z.enum(['csv', 'xlsx', 'json', 'ndjson', 'xml']).default('csv'),
  separator: z.enum(['comma', 'semicolon', 'tab']).default('comma').describe('Of a CSV'),
  mark: z.stringbool().default(false).describe('Begin a CSV with the mark of UTF-8'),
});

const separators = { comma: ',', semicolon: ';', tab: '\t' } as const;
const portion = 1_000;

async function* cellsOf(exportId: number): AsyncGenerator<string[]> {
  let after: [number, number] = [0, -1];
  for (;;) {
    const rows = rowsOf<{ itemId: number; position: number; cells: string[] }>(
      await database().execute(sql`
        select item_id as itemId, position, cells from file_export_row
        where export_id = ${exportId} and (item_id > ${after[0]} or (item_id = ${after[0]} and position > ${after[1]}))
        order by item_id, position limit ${portion}`),
    );
    for (const row of rows) yield row.cells;
    const last = rows.at(-1);
    if (!last || rows.length < portion) return;
    after = [last.itemId, last.position];
  }
}

/**
 * A file of what was written out, as a stream. The first column's name leads back to the export, so that the file is compared
 * with what was written out.
 */
export async function exportFile(
  id: number,
  { format, separator, mark }: z.infer<typeof exportFileSchema>,
): Promise<{ format: Format; name: string; stream: Readable }> {
  const made = await findExport(id);
  if (!made.isDone)
    throw new NettingError('too-late', 'It is still being written out', { fix: 'Wait until it is done' });
  const { find } = await fileColumns(database());
  const columns = made.columns.map((one): Column => {
    if (made.kind !== 'items') return lookedAtColumn(one.label, one);
    const place = placeOf(one.id) ?? { of: 'item', field: one.id };
    const column = find(one.id) ?? { id: one.id, label: one.label, place, field: null, currency: homeCurrency };
    return one.id === 'row.item'
      ? { ...column, id: exportHeader('row.item', id), label: exportHeader('Item', id) }
      : column;
  });
  const chosen = formats[format];
  const name = `${made.title.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase() || 'items'}-${id}.${chosen.ending}`;
  return {
    format: chosen,
    name,
    stream: chosen.write(columns, cellsOf(id), { separator: separators[separator], mark }),
  };
}
