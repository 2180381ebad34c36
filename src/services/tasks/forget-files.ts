import { inArray, lt, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { fileExport, fileExportRow, fileImport, fileImportRow } from '../../db/schema';
import { removeShared } from '../../photos/shared-file';
import { archivePath, importPath } from '../importing/import-path';

const keptDays = 90;
const portion = 2_000;

/** Files that were written out or read in long ago go, with their rows; what they changed stays in the history. */
export async function forgetFiles(now: Date, isEnding: () => boolean): Promise<void> {
  const db = database();
  const before = new Date(now.getTime() - keptDays * 86_400_000);
  const exports = await db.select({ id: fileExport.id }).from(fileExport).where(lt(fileExport.createdAt, before));
  const imports = await db
    .select({ id: fileImport.id, contents: fileImport.contents })
    .from(fileImport)
    .where(lt(fileImport.createdAt, before));
  const clear = async (
    table: typeof fileExportRow | typeof fileImportRow,
    name: 'export_id' | 'import_id',
    id: number,
  ) => {
    for (let gone = portion; gone === portion && !isEnding(); )
      [{ affectedRows: gone }] = await db
        .delete(table)
        .where(sql`${sql.identifier(name)} = ${id}`)
        .limit(portion);
  };
  for (const { id } of exports) await clear(fileExportRow, 'export_id', id);
  for (const { id } of imports) await clear(fileImportRow, 'import_id', id);
  if (isEnding()) return;
  const ids = (rows: { id: number }[]) => rows.map((one) => one.id);
  if (exports.length) await db.delete(fileExport).where(inArray(fileExport.id, ids(exports)));
  if (imports.length) await db.delete(fileImport).where(inArray(fileImport.id, ids(imports)));
  const needed = new Set(
    (await db.select({ contents: fileImport.contents }).from(fileImport)).map((one) => one.contents),
  );
  for (const { contents } of imports)
    if (!needed.has(contents))
      for (const path of [importPath(contents), archivePath(contents)]) await removeShared(path);
}
