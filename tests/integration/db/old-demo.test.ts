import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { emptyShop, migrateShop } from '../../support/old-shop';

const name = 'netting_old_demo';
/** What must still be there, row by row, after the demo of the release before was migrated. */
const kept = ['item', 'listing', 'movement', 'change_record', 'sale', 'job', 'item_photo', 'remote_photo', 'run'];

let connection: Connection;
const rows = async (query: string) => (await connection.query<RowDataPacket[]>(query))[0];
const columnsOf = async (table: string) =>
  (
    await rows(
      `select column_name as name from information_schema.columns where table_schema = '${name}' and table_name = '${table}' and generation_expression is null`,
    )
  ).map((row) => String(row.name));
const all = async (table: string) => new Map((await rows(`select * from ${table}`)).map((row) => [row.id, row]));

const before = new Map<string, { columns: string[]; rows: Map<number, RowDataPacket> }>();

beforeAll(async () => {
  connection = await emptyShop(name);
  const dump = gunzipSync(readFileSync(join(__dirname, 'demo-of-before.sql.gz'))).toString('utf8');
  await connection.query(dump);
  for (const table of kept) before.set(table, { columns: await columnsOf(table), rows: await all(table) });
  expect(migrateShop(name)).toBe('');
});
afterAll(async () => {
  await connection.query(`drop database ${name}`);
  await connection.end();
});

test('the dump is of a whole shop', () => {
  const count = (table: string) => before.get(table)?.rows.size ?? 0;
  expect(count('item')).toBe(121);
  expect(count('listing')).toBe(1_452);
  expect(count('movement')).toBe(130);
  expect(count('change_record')).toBe(268);
  expect(count('sale')).toBe(367);
});

test.each(kept)('every row of %s is there, with every value that it had', async (table) => {
  const old = before.get(table);
  const now = await all(table);
  const columns = new Set(await columnsOf(table));
  const same = (old?.columns ?? []).filter((column) => columns.has(column));
  expect(same.length).toBeGreaterThan(3);
  for (const [id, row] of old?.rows ?? []) {
    const found = now.get(id);
    for (const column of same) {
      // Combinations get keys of their own; what they were stays.
      if (table === 'item' && column === 'variations') continue;
      expect({ table, id, column, value: found?.[column] }).toEqual({ table, id, column, value: row[column] });
    }
  }
});

test('combinations are what they were, each with a key of its own, and the ledger counts them', async () => {
  type Row = { key: string };
  const keys = new Set<string>();
  let varied = 0;
  for (const item of await rows('select id, quantity, axes, variations from item')) {
    const old = before.get('item')?.rows.get(item.id);
    const table = item.variations as Row[];
    expect(table.map(({ key: _key, ...rest }) => rest)).toEqual(
      ((old?.variations ?? []) as Row[]).map(({ key: _key, ...rest }) => rest),
    );
    for (const { key } of table) {
      expect(key).toBeTruthy();
      expect(keys.has(key)).toBe(false);
      keys.add(key);
    }
    if ((item.axes as unknown[]).length) varied++;
  }
  expect(varied).toBeGreaterThan(0);
  expect(
    await rows(
      "select i.id from item i left join movement m on m.item_id = i.id where i.axes = '[]' group by i.id, i.quantity having i.quantity <> coalesce(sum(m.delta), 0)",
    ),
  ).toEqual([]);
});
