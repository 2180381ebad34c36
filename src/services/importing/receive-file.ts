import { createHash, randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { NettingError } from '../../core/errors';
import { exportNamed } from '../../core/table';
import { database } from '../../db/client';
import { fileImport } from '../../db/schema';
import { archiveKind, keepStream, type Layout, layoutOf, limits, packedKind, sheetNames, takeTable } from '../../files';
import { shareFile } from '../../photos/shared-file';
import type { Actor } from '../access/actor';
import { fileColumns } from '../records/items/file-columns';
import { noCounts } from './check-step';
import { archivePath, importFolder, importPath } from './import-path';
import { readStart, recogniseColumns } from './read-start';

/** Keeps a body in the data folder under the hash of its contents, without ever holding it whole. */
async function keep(body: AsyncIterable<Uint8Array>): Promise<{ contents: string; bytes: number }> {
  await mkdir(importFolder(), { recursive: true });
  const aside = join(importFolder(), `${randomUUID()}.part`);
  const hash = createHash('sha256');
  const bytes = await keepStream(body, aside, {
    most: limits.bytes,
    tooMuch: () =>
      new NettingError('invalid', `At most ${limits.bytes / 1_000_000} MB can be read in at once`, { field: 'file' }),
    each: (chunk) => hash.update(chunk),
  });
  const contents = hash.digest('hex');
  await rename(aside, importPath(contents));
  return { contents, bytes };
}

/** Of a workbook with several sheets the first with something in it is read, until another is chosen. */
async function bookLayout(path: string): Promise<Layout> {
  const sheets = await sheetNames(path);
  return { format: 'xlsx', hasHeader: true, ...(sheets.length > 1 ? { sheets } : {}) };
}

/** How a file is written: a workbook, what its first bytes say, or the same of the table that a ZIP holds. */
async function layoutAt(contents: string): Promise<Layout> {
  const path = importPath(contents);
  if ((await packedKind(path)) === 'plain') return layoutOf(path);
  if ((await archiveKind(path)) === 'workbook') return bookLayout(path);
  await rename(path, archivePath(contents));
  await takeTable(archivePath(contents), path);
  const inside = await packedKind(path);
  return inside === 'zip' ? bookLayout(path) : layoutOf(path);
}

/** Takes a file, looks at how it is written and what its columns are; nothing of the shop is changed by that. */
export async function receiveFile(
  actor: Actor,
  { name, body }: { name: string; body: AsyncIterable<Uint8Array> },
): Promise<{ id: number }> {
  const { contents, bytes } = await keep(body);
  const path = importPath(contents);
  const layout = await layoutAt(contents);
  const { headers, samples } = await readStart(path, layout);
  for (const one of [path, archivePath(contents)]) if (existsSync(one)) await shareFile(one);
  const db = database();
  const recognised = await recogniseColumns(db, await fileColumns(db), headers, samples);
  const [{ insertId }] = await db.insert(fileImport).values({
    name: name.slice(0, 200) || 'Pasted',
    bytes,
    contents,
    layout,
    headers,
    samples,
    ties: recognised.map((one) => one.column),
    recognised: recognised.map(({ certainty, why }) => ({ certainty, why })),
    options: { units: 'set', empty: 'keep', createNew: true, decided: {} },
    exportId: exportNamed(headers),
    state: 'open',
    counts: noCounts,
    byId: actor.id,
    byName: actor.name,
    createdAt: new Date(),
  });
  return { id: insertId };
}
