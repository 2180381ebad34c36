import { sql } from 'drizzle-orm';
import { type Recognised, recognise } from '../../core/table';
import type { Executor } from '../../db/client';
import { columnMemory } from '../../db/schema';
import { formats, type Layout } from '../../files';
import type { FileColumns } from '../records/items/file-columns';
import { knownAttributes } from '../records/items/known-attributes';
import { signatureHash } from './column-memory';

const sampled = 200;

/** The first rows of a file, column by column. */
export async function readStart(path: string, layout: Layout): Promise<{ headers: string[]; samples: string[][] }> {
  const table = await formats[layout.format].read(path, layout);
  const samples: string[][] = table.headers.map(() => []);
  let count = 0;
  for await (const { cells } of table.rows) {
    for (const [at, values] of samples.entries()) values.push((cells[at] ?? '').slice(0, 300));
    if (++count >= sampled) break;
  }
  return { headers: table.headers, samples };
}

/** What the columns of a file are tied to: as the last time with these columns, else as they are recognised. */
export async function recogniseColumns(
  db: Executor,
  columns: FileColumns,
  headers: readonly string[],
  samples: readonly (readonly string[])[],
): Promise<Recognised[]> {
  const [kept] = await db
    .select()
    .from(columnMemory)
    .where(sql`${columnMemory.signature} = ${signatureHash(headers)}`);
  const attributes = await knownAttributes(db);
  // What the file calls attributes itself is one, whether an item has it or not.
  const named = headers.flatMap((header) => /^attributes\.(.+)$/.exec(header.trim())?.[1] ?? []);
  return recognise(headers, samples, columns.all([...new Set([...attributes, ...named])]), kept?.ties ?? {});
}
