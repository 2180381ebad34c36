import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { emptyShop, migrateShop } from '../../support/old-shop';

const root = resolve(__dirname, '..', '..', '..');
const migrations = join(root, 'src', 'db', 'migrations');
const { entries } = JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as {
  entries: { idx: number; tag: string; when: number }[];
};
const name = 'netting_old';
let connection: Connection;
const rows = async (query: string) => (await connection.query<RowDataPacket[]>(query))[0];

/** A shop as the release before had it: the tables of then, with something in each that was renamed since. */
const before = 4;
const old = [
  "insert into market_account (id, market, name, remote_name, state, secrets, hook_key, exceptions, defaults, created_at) values (7, 'hallowick', 'Hallowick', 'grainhouse', 'connected', 'sealed', 'hook', '{}', '{}', utc_timestamp(3))",
  "insert into item (id, version, sku, title, price, cost, quantity, axes, variations, created_at, updated_at, attributes, highlights, keywords, brand, model, category, condition_note, description, currency, barcode, location, supplier, notes) values (3, 5, 'GH-3', 'Brask K-2', 14900, 5000, 1, '[]', '[]', utc_timestamp(3), utc_timestamp(3), '{}', '[]', '[]', 'Brask', 'K-2', 'cameras/slr', '', '', 'EUR', '', 'B1', '', '')",
  "insert into listing (id, item_id, account_id, differences, own_price, wanted_price, sent_price, wanted, remote, remote_id) values (11, 3, 7, '{\"title\":\"Own words\",\"price\":15900}', 15900, 15900, 15500, 'live', 'live', 'H-1')",
  "insert into former_number (listing_id, account_id, remote_id, why, at) values (11, 7, 'H-0', 'renewed', utc_timestamp(3))",
  "insert into learned (market, kind, place, said, theirs, by_name, at) values ('selasar', 'value', 'colour', 'anthracite', 'Grey', 'Ines', utc_timestamp(3))",
  "insert into own_field (field_key, label, type, choices, category) values ('serial', 'Serial number', 'text', '[]', 'cameras')",
  "insert into job (listing_id, account_id, priority, state, due_at, message, mend, created_at) values (11, 7, 3, 'failed', utc_timestamp(3), 'The title is too long', 'Shorten it', utc_timestamp(3))",
  "insert into change_record (item_id, listing_id, item_version, field, old_value, new_value, why, by_name, at) values (3, 11, 4, 'place', 'false', 'true', 'typing', 'Ines', utc_timestamp(3))",
  "insert into change_record (item_id, item_version, field, old_value, new_value, why, by_name, at) values (3, 5, 'title', '\"Brask\"', '\"Brask K-2\"', 'typing', 'Ines', utc_timestamp(3))",
  "insert into movement (item_id, delta, reason, at, by_name) values (3, 1, 'opening', utc_timestamp(3), 'Ines')",
  // A strap in two colours, one of them switched off: counted as a whole, sold once by its words.
  `insert into item (id, version, sku, title, price, quantity, axes, variations, created_at, updated_at, attributes, highlights, keywords, brand, model, category, condition_note, description, currency, barcode, location, supplier, notes) values (4, 2, 'GH-4', 'Strap', 2900, 5, '[{"name":"Colour","values":["tan","black","red"]}]', '[{"values":["tan"],"on":true,"sku":"","quantity":2,"price":null,"barcode":""},{"values":["black"],"on":true,"sku":"","quantity":3,"price":null,"barcode":""},{"values":["red"],"on":false,"sku":"","quantity":4,"price":null,"barcode":""}]', utc_timestamp(3), utc_timestamp(3), '{}', '[]', '[]', '', '', 'straps', '', '', 'EUR', '', '', '', '')`,
  "insert into movement (item_id, delta, reason, at, by_name) values (4, 6, 'opening', utc_timestamp(3), 'Ines')",
  "insert into movement (item_id, delta, reason, variation, at, by_name) values (4, -1, 'sold', 'tan', utc_timestamp(3), 'Netting')",
  "insert into sale (account_id, order_id, item_id, sku, title, quantity, unit_price, total, fee, currency, variation, sold_at) values (7, 'O-2', 4, 'GH-4', 'Strap', 1, 2900, 2900, 300, 'EUR', 'tan', utc_timestamp(3))",
  `insert into schedule (kind, title, due_at, input, by_id, by_name, state, created_at) values ('publish', 'On Sunday', utc_timestamp(3) + interval 3 day, '{"accounts":[7]}', 'u1', 'Ines', 'waiting', utc_timestamp(3)), ('publish', 'Called off', utc_timestamp(3), '{}', 'u1', 'Ines', 'cancelled', utc_timestamp(3))`,
  "insert into sale (account_id, order_id, item_id, sku, title, quantity, unit_price, total, fee, currency, sold_at) values (7, 'O-1', 3, 'GH-3', 'Brask K-2', 1, 15500, 15500, 1800, 'EUR', utc_timestamp(3))",
];

beforeAll(async () => {
  connection = await emptyShop(name);
  await connection.query(
    'create table __drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
  );
  for (const { tag, when } of entries.slice(0, before)) {
    for (const statement of readFileSync(join(migrations, `${tag}.sql`), 'utf8').split('--> statement-breakpoint'))
      await connection.query(statement);
    await connection.query('insert into __drizzle_migrations (hash, created_at) values (?, ?)', [tag, when]);
  }
  for (const statement of old) await connection.query(statement);
  expect(migrateShop(name)).toBe('');
});
afterAll(async () => {
  await connection.query(`drop database ${name}`);
  await connection.end();
});

test('every listing, with what was written for it alone and its numbers of before', async () => {
  expect(await rows('select id, overrides, override_price, wanted_price, state from listing')).toEqual([
    {
      id: 11,
      overrides: { title: 'Own words', price: 15_900 },
      override_price: 15_900,
      wanted_price: 15_900,
      state: 'changed',
    },
  ]);
  expect(await rows('select listing_id, remote_id, why from previous_remote_id')).toEqual([
    { listing_id: 11, remote_id: 'H-0', why: 'renewed' },
  ]);
});

test('every account, mapping and field of one’s own', async () => {
  expect(await rows('select id, name from account')).toEqual([{ id: 7, name: 'Hallowick' }]);
  expect(await rows('select market, kind, attribute, source, target from mapping')).toEqual([
    { market: 'selasar', kind: 'value', attribute: 'colour', source: 'anthracite', target: 'Grey' },
  ]);
  expect(await rows('select field_key, label from custom_field')).toEqual([
    { field_key: 'serial', label: 'Serial number' },
  ]);
});

test('every movement, sale, job and line of history', async () => {
  expect(await rows('select item_id, delta, reason from movement where item_id = 3')).toEqual([
    { item_id: 3, delta: 1, reason: 'opening' },
  ]);
  expect(await rows("select order_id, total, fee from sale where order_id = 'O-1'")).toEqual([
    { order_id: 'O-1', total: 15_500, fee: 1_800 },
  ]);
  expect(await rows('select message, fix from job')).toEqual([{ message: 'The title is too long', fix: 'Shorten it' }]);
  expect(await rows('select field, new_value from change_record order by id')).toEqual([
    { field: 'target', new_value: true },
    { field: 'title', new_value: 'Brask K-2' },
  ]);
});

test('a price may be as high as the interface lets it be', async () => {
  await connection.query('update item set price = 10000000000; update listing set wanted_price = 12000000000');
  expect(await rows('select i.price, l.wanted_price, l.dirty from item i join listing l on l.item_id = i.id')).toEqual([
    { price: 10_000_000_000, wanted_price: 12_000_000_000, dirty: 1 },
  ]);
});

test('combinations get keys of their own, and the ledger is counted by them', async () => {
  const [strap] = await rows('select quantity, variations from item where id = 4');
  const table = strap?.variations as { values: string[]; quantity: number; key: string }[];
  expect(strap?.quantity).toBe(5);
  expect(table.map((one) => [one.values[0], one.quantity])).toEqual([
    ['tan', 2],
    ['black', 3],
    ['red', 4],
  ]);
  const sums = await rows(
    'select combination, sum(delta) as units from movement where item_id = 4 group by combination',
  );
  const units = new Map(sums.map((one) => [one.combination as string | null, Number(one.units)]));
  for (const one of table) expect(units.get(one.key)).toBe(one.quantity);
  expect(units.get(null)).toBe(0);
  const tan = table.find((one) => one.values[0] === 'tan')?.key;
  expect(await rows("select combination from movement where reason = 'sold'")).toEqual([{ combination: tan }]);
  expect(await rows("select combination from sale where order_id = 'O-2'")).toEqual([{ combination: tan }]);
});

test('what was planned for a later time is a task', async () => {
  expect(await rows('select kind, title, state, by_name from task order by id')).toEqual([
    { kind: 'publish', title: 'On Sunday', state: 'waiting', by_name: 'Ines' },
    { kind: 'publish', title: 'Called off', state: 'stopped', by_name: 'Ines' },
  ]);
});
