import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { parse } from 'csv-parse/sync';
import { sql } from 'drizzle-orm';
import mysql from 'mysql2/promise';
import pino from 'pino';
import { config, readSecrets } from '../../src/config';
import { database, pool } from '../../src/db/client';
import { rowsOf } from '../../src/db/rows';
import { csvLines } from '../../src/files';
import type { Actor } from '../../src/services/access/actor';
import { beginExport } from '../../src/services/exporting/begin-export';
import { exportFile } from '../../src/services/exporting/export-file';
import { beginCheck } from '../../src/services/importing/begin-check';
import { beginImport } from '../../src/services/importing/begin-import';
import { receiveFile } from '../../src/services/importing/receive-file';
import { runTask } from '../../src/services/tasks/run-task';
import { type Figure, ratioFigure, time } from './measure';

const columns = ['sku', 'title', 'brand', 'condition', 'price', 'cost', 'quantity', 'location', 'barcode'];
const silent = pino({ level: 'silent' });
const work = async () => {
  while (await runTask('bench', silent, () => false));
};

/** The raw work beside it: one statement that reads the same columns, written as CSV. */
async function rawExport(path: string): Promise<number> {
  return time(async () => {
    const [rows] = await pool().query({
      sql: 'select id, sku, title, brand, condition_grade, price, cost, quantity, location, barcode from item where archived = 0 order by id',
      rowsAsArray: true,
    });
    const lines = (rows as unknown[][]).map((row) =>
      row.map((cell) => `"${String(cell ?? '').replaceAll('"', '""')}"`).join(','),
    );
    await writeFile(path, lines.join('\r\n'));
  });
}

/** The same file by the server's own way to read one. */
async function rawLoad(path: string): Promise<number> {
  const connection = await mysql.createConnection({
    host: '127.0.0.1',
    port: config.databasePort,
    user: 'netting',
    password: readSecrets().databasePassword,
    database: config.databaseName,
    infileStreamFactory: () => createReadStream(path),
  });
  try {
    await connection.query('drop table if exists bench_load');
    await connection.query(
      'create table bench_load (id bigint, sku varchar(40), title varchar(300), brand varchar(80), `condition` varchar(20), price varchar(20), cost varchar(20), quantity int, location varchar(60), barcode varchar(20), k varchar(20), primary key (id))',
    );
    return await time(() =>
      connection.query(
        `load data local infile 'it' into table bench_load character set utf8mb4 fields terminated by ',' optionally enclosed by '"' lines terminated by '\\r\\n' ignore 1 lines`,
      ),
    );
  } finally {
    await connection.query('drop table if exists bench_load');
    await connection.end();
  }
}

/** A tenth of the prices a euro more. */
function dearer(csv: string): string {
  const rows = parse(csv) as string[][]; // without columns rows are lists
  const at = rows[0]?.indexOf('Price') ?? -1;
  for (const [index, row] of rows.entries())
    if (index % 10 === 5 && row[at]) row[at] = (Number(row[at]) + 1).toFixed(2);
  return csvLines(rows, ',');
}

/** P5: the inventory written out as CSV, and the same file with a tenth of its prices changed read in and carried out. */
export async function filing(actor: Actor, size: number, say: (text: string) => void): Promise<Figure[]> {
  const db = database();
  const folder = await mkdtemp(join(tmpdir(), 'netting-bench-'));
  const path = join(folder, 'items.csv');
  let most = 0;
  const before = process.memoryUsage().rss;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 50);
  let exportId = 0;
  const out = await time(async () => {
    const begun = await beginExport(actor, {
      kind: 'items',
      selection: { kind: 'filter', filter: {}, except: [] },
      columns,
      title: 'Bench',
    });
    await work();
    exportId = begun.exportId;
    const { stream } = await exportFile(exportId, { format: 'csv', separator: 'comma', mark: false });
    await pipeline(stream, createWriteStream(path));
  });
  const outRaw = await rawExport(join(folder, 'raw.csv'));
  await writeFile(path, dearer(await readFile(path, 'utf8')));
  const load = await rawLoad(path);
  let id = 0;
  const read = await time(async () => {
    ({ id } = await receiveFile(actor, { name: 'bench.csv', body: createReadStream(path) }));
    await beginCheck(actor, id);
    await work();
  });
  const applied = await time(async () => {
    await beginImport(actor, id, { send: true });
    await work();
  });
  clearInterval(watch);
  const [row] = rowsOf<{ state: string; counts: string }>(
    await db.execute(sql`select state, concat(counts, '') as counts from file_import where id = ${id}`),
  );
  if (row?.state !== 'applied') throw new Error(`the file ended as ${row?.state}: ${row?.counts}`);
  say(
    `  recognised and compared in ${Math.round(read)} ms, a tenth carried out in ${Math.round(applied)} ms: ${row.counts}`,
  );
  await rm(folder, { recursive: true, force: true });
  return [
    ratioFigure(`P5 ${size} items written out as CSV`, { ours: out, raw: outRaw }, 3),
    ratioFigure(`P5 ${size} rows read in, a tenth changed and sent`, { ours: read + applied, raw: load }, 5),
    {
      id: 'P5 memory beyond the start',
      value: Math.round((most - before) / 1_000_000),
      unit: 'MB',
      baseline: null,
      ratio: null,
      goal: '≤ 300 MB',
      ok: most - before <= 300_000_000,
    },
  ];
}
