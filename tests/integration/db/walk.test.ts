import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { Connection } from 'mysql2/promise';
import { columnsOf, tablesOf, writeAnyRow } from '../../support/any-row';
import { emptyShop } from '../../support/old-shop';

const migrations = join(resolve(__dirname, '..', '..', '..'), 'src', 'db', 'migrations');
const { entries } = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
  entries: { idx: number; tag: string }[];
};
/** From here on every step only adds: a process of before goes on working while the tables are brought up to date. */
const onlyAddedSince = '0046_printables';
const name = 'netting_walk';
let connection: Connection;

beforeAll(async () => {
  connection = await emptyShop(name);
});
afterAll(async () => {
  await connection.query(`drop database ${name}`);
  await connection.end();
});

const rowsIn = async (table: string) => {
  const [[row]] = (await connection.query(`select count(*) as count from \`${table}\``)) as unknown as [
    [{ count: number }],
  ]; // one row of one column
  return Number(row.count);
};

test('every state of the tables comes to the next with rows in all of them, and what a process of before asks is still answered', async () => {
  let number = 1_000;
  /** What a process of the release before names of each table. */
  const before = new Map<string, Awaited<ReturnType<typeof columnsOf>>>();
  const written = new Map<string, number>();
  let walked = 0;
  for (const { tag } of entries) {
    for (const statement of readFileSync(join(migrations, `${tag}.sql`), 'utf8').split('--> statement-breakpoint'))
      if (statement.trim()) await connection.query(statement);
    walked++;
    const tables = await tablesOf(connection);
    for (const table of tables) {
      const columns = await columnsOf(connection, table);
      if (!written.has(table)) {
        if ((await rowsIn(table)) === 0) await writeAnyRow(connection, table, columns, number++);
        written.set(table, await rowsIn(table));
      }
      if (tag === onlyAddedSince) before.set(table, columns);
    }
    for (const [table, columns] of before) {
      // It reads and writes by the names that it knows.
      const names = columns.map((one) => `\`${one.name}\``).join(', ');
      await connection.query(`select ${names} from \`${table}\` limit 1`);
      await writeAnyRow(connection, table, columns, number++);
      written.set(table, (written.get(table) ?? 0) + 1);
    }
  }
  expect(walked).toBe(entries.length);
  expect(before.size).toBeGreaterThan(50);
  const lost: string[] = [];
  for (const table of await tablesOf(connection))
    if ((await rowsIn(table)) < (written.get(table) ?? 1)) lost.push(table);
  expect(lost).toEqual([]);
}, 240_000);
