import { sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { csvLines, type Separator } from '../../files';
import { loadImport } from './load-import';

const portion = 1_000;

/** Every refused row as it was, with a column that says why: mended, it is read in again. */
export async function importReport(id: number): Promise<{ name: string; parts: AsyncGenerator<string> }> {
  const db = database();
  const made = await loadImport(db, id);
  const { separator = ',' } = made.layout as { separator?: Separator }; // written by `receiveFile`
  async function* parts() {
    yield csvLines([[...made.headers, 'why']], separator);
    for (let after = 0; ; ) {
      const rows = rowsOf<{ line: number; raw: string[]; why: string | null }>(
        await db.execute(
          sql`select line, raw, why from file_import_row where import_id = ${id} and kind = 'refused' and line > ${after} order by line limit ${portion}`,
        ),
      );
      if (rows.length)
        yield csvLines(
          rows.map((row) => [...made.headers.map((_, at) => row.raw[at] ?? ''), row.why ?? '']),
          separator,
        );
      const last = rows.at(-1);
      if (!last || rows.length < portion) return;
      after = last.line;
    }
  }
  return { name: `${made.name.replace(/\.[a-z]+$/i, '')}-refused.csv`, parts: parts() };
}
