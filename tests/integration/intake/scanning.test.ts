import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import {
  act,
  batchOf,
  bookCode,
  linesOf,
  newBatch,
  scan,
  scanOf,
  settled,
  strangeCode,
  whole,
} from '../../support/intake';
import { readyItem, sheet } from '../../support/items';
import { call, until } from '../../support/stack';

afterAll(closeDatabase);

const stockOf = async (id: number) => (await sheet(id)).item.quantity;
/** Codes that no other test uses. */
let used = (Math.floor(Date.now() / 1_000) % 100_000) * 50 + 30_000_000;
const fresh = () => strangeCode(used++);
/** A book that is not in stock yet, also when these tests ran here before. */
let shelf = Math.floor(Date.now() / 3_000) % 130;
const book = () => bookCode(shelf++);

test('a book is recorded with the presets, and its details arrive from the catalogues', async () => {
  const batch = await newBatch({ name: 'House clearance', supplier: 'Estate Aldern', skuPattern: 'HC-' });
  const settings = { grade: 'good' as const, snippets: ['Spine creased', 'Name inside'], cost: 120, place: 'A-07' };
  const code = book();
  const line = await scan(batch, code, { ...settings, price: { by: 'cost', times: 300, plus: 50 } });
  expect(line).toMatchObject({ kind: 'item', finding: 'looking', code });
  expect(line.item).toMatchObject({ price: 410, cost: 120, location: 'A-07', condition: 'good' });
  expect(line.item?.conditionNote).toBe('Spine creased. Name inside.');
  const done = await whole(batch, line.id);
  expect(done).toMatchObject({
    finding: 'found',
    item: { title: expect.stringMatching(/(paperback|hardback)$/) },
  });
  const { item } = await sheet(line.item?.id ?? 0);
  expect(item).toMatchObject({ supplier: 'Estate Aldern', batch: `B${batch}`, barcode: code, quantity: 1 });
  expect(item.sku).toMatch(/^HC-\d{4}$/);
  expect(done.best?.net).toEqual(expect.any(Number));
});

test('the same again adds to what is there and says in numbers what results; another condition is another item', async () => {
  const batch = await newBatch();
  const code = fresh();
  const first = await scan(batch, code, { grade: 'good' });
  const second = await scan(batch, code, { grade: 'good', quantity: 2 });
  expect(second).toMatchObject({ kind: 'stock', finding: 'known', said: expect.stringContaining('1 + 2 = 3') });
  expect(second.item?.id).toBe(first.item?.id);
  expect(await stockOf(first.item?.id ?? 0)).toBe(3);
  const worn = await scan(batch, code, { grade: 'poor' });
  expect(worn).toMatchObject({ kind: 'item', finding: 'known', said: expect.stringContaining('another condition') });
  expect(worn.item?.id).not.toBe(first.item?.id);
  const numbered = await scan(batch, first.item?.sku ?? '');
  expect(numbered).toMatchObject({ kind: 'stock', item: { id: first.item?.id } });
  expect(await stockOf(first.item?.id ?? 0)).toBe(4);
});

test('the number of what was put away, or of something with variations, makes nothing and says what to do', async () => {
  const batch = await newBatch();
  const gone = await scan(batch, fresh());
  await act(batch, { act: 'undo', of: gone.key });
  const put = await scan(batch, gone.item?.sku ?? '');
  expect(put).toMatchObject({ kind: 'none', said: expect.stringContaining('was put away') });
  const row = (value: string) => ({ values: [value], on: true, sku: '', quantity: 2, price: null, barcode: '' });
  const variations = [{ ...row('Black'), sku: `V${Date.now()}` }, row('Tan')];
  const varied = await readyItem({ axes: [{ name: 'Colour', values: ['Black', 'Tan'] }], variations });
  expect(await scan(batch, varied.sku)).toMatchObject({
    kind: 'none',
    said: expect.stringContaining('has variations'),
  });
  const one = await scan(batch, variations[0]?.sku ?? '', { quantity: 3 });
  expect(one).toMatchObject({ kind: 'stock', said: expect.stringContaining('2 + 3 = 5') });
});

test('what was recognised is kept for all such things, also where a process ended before that', async () => {
  const batch = await newBatch();
  const line = await scan(batch, book());
  await whole(batch, line.id);
  await settled(batch);
  const known = async () => {
    const [rows] = await database().execute(
      sql`select count(*) as n from mapping where kind = 'product' and source = ${`code:${line.code}`}`,
    );
    return Number((rows as unknown as { n: number }[])[0]?.n); // as MariaDB answers a count
  };
  expect(await known()).toBeGreaterThan(0);
  // As a process leaves it that is killed in between: recognised, complete for the hand, due again.
  await database().execute(sql`delete from mapping where kind = 'product' and source = ${`code:${line.code}`}`);
  await database().execute(sql`update batch_line set look_at = utc_timestamp(3) where id = ${line.id}`);
  await until(known, (rows) => rows > 0, 60_000);
});

test('a code that nobody knows is recorded all the same, and waits to be written', async () => {
  const batch = await newBatch();
  const line = await scan(batch, fresh(), { grade: 'good' });
  const done = await whole(batch, line.id);
  expect(done).toMatchObject({ finding: 'unknown', item: { title: '' } });
  expect(done.needs.map((one) => one.what)).toContain('title');
  expect((await linesOf(batch, 'open=true')).map((one) => one.id)).toEqual([line.id]);
});

test('a broken code makes nothing and is kept; read again as what was meant it is recorded in its place', async () => {
  const batch = await newBatch();
  const code = fresh();
  const wrong = `${code.slice(0, 12)}${(Number(code[12]) + 1) % 10}`;
  const line = await scan(batch, wrong);
  expect(line).toMatchObject({
    kind: 'none',
    finding: 'broken',
    item: null,
    said: expect.stringContaining('check digit'),
  });
  const meant = await scan(batch, code);
  const [again] = (await linesOf(batch, `ids=${line.id}`)).map((one) => one.near);
  expect(again).toEqual([code]);
  await act(batch, { act: 'undo', of: meant.key });
  const after = await scan(batch, fresh());
  const [refused] = await act(batch, { act: 'answer', of: line.key, text: wrong });
  expect(refused?.problem?.message).toContain('check digit');
  const [mended] = await act(batch, { act: 'answer', of: line.key, text: code });
  expect(mended?.lines).toMatchObject([{ id: line.id, key: line.key, kind: 'item', code }]);
  expect((await linesOf(batch)).map((one) => one.id)).toEqual([after.id, meant.id, line.id]);
});

test('two codes in one are two lines, rubbish is one that says so, and what is behind them goes on', async () => {
  const batch = await newBatch();
  const [a, b, c] = [fresh(), fresh(), fresh()];
  const done = await act(batch, scanOf(a + b), scanOf('§§§'), scanOf(`\t${c}\r\n`));
  expect(done.map((one) => one.lines.map((line) => line.code))).toEqual([[a, b], [''], [c]]);
});

test('sent twice, also at the same moment, a scan is one line and its piece is there once', async () => {
  const batch = await newBatch();
  const code = fresh();
  const once = scanOf(code, { quantity: 3 });
  const again = scanOf(code, { quantity: 2 });
  await Promise.all([act(batch, once, again), act(batch, once, again), act(batch, once)]);
  await act(batch, once, again);
  const lines = await linesOf(batch);
  expect(lines.map((one) => one.kind).sort()).toEqual(['item', 'stock']);
  expect(await stockOf(lines[0]?.item?.id ?? 0)).toBe(5);
  expect((await batchOf(batch)).totals).toMatchObject({ lines: 2, units: 5 });
});

test('two people scan a code that is in stock nowhere at the same moment: it is one item', async () => {
  const [mine, theirs] = [await newBatch(), await newBatch()];
  const codes = Array.from({ length: 6 }, fresh);
  const scans = () => codes.map((code) => scanOf(code));
  await Promise.all([act(mine, ...scans()), act(theirs, ...scans())]);
  const lines = [...(await linesOf(mine)), ...(await linesOf(theirs))];
  expect(new Set(lines.map((one) => one.item?.id)).size).toBe(6);
  expect(lines.every((one) => one.item?.quantity === 2)).toBe(true);
});

test('what was kept while there was no connection comes at once: every line in its order, each as if it had come alone', async () => {
  const batch = await newBatch({ skuPattern: 'KP-' });
  const stocked = await scan(batch, fresh(), { quantity: 4 });
  const [a, b, c, d] = [fresh(), fresh(), fresh(), fresh()];
  const wrong = fresh().replace(/.$/, (digit) => String((Number(digit) + 1) % 10));
  const number = stocked.item?.sku ?? '';
  const next = number.replace(/\d+$/, (digits) => String(Number(digits) + 1).padStart(digits.length, '0'));
  // The first gets the next number: scanned behind it, it is known by it. Twelve are more than go together.
  const texts = [a, next, wrong, number, b, a, c, b + d, d, stocked.code, next, wrong];
  const sent = texts.map((text) => scanOf(text));
  const done = await act(batch, ...sent);
  expect(done.map((one) => one.lines.map((line) => line.kind).join())).toEqual([
    'item',
    'stock',
    'none',
    'stock',
    'item',
    'stock',
    'item',
    'stock,item',
    'stock',
    'stock',
    'stock',
    'none',
  ]);
  const skus = done.flatMap((one) => one.lines.filter((line) => line.kind === 'item').map((line) => line.item?.sku));
  expect(skus).toEqual([...skus].sort());
  expect(await act(batch, ...sent)).toEqual(done.map((one) => ({ ...one, lines: expect.any(Array) })));
  const units = async (code: string) => (await linesOf(batch)).find((line) => line.code === code)?.item?.quantity;
  expect([await units(a), await units(b), await units(c), await units(d)]).toEqual([4, 2, 1, 2]);
  expect(await stockOf(stocked.item?.id ?? 0)).toBe(6);
  const { totals, runId } = await batchOf(batch);
  expect(totals.lines).toBe(14);
  const { body } = await call<{ run: { itemCount: number } }>('GET', `/runs/${runId}/changes`);
  expect(body.run.itemCount).toBe(12);
});

test('two people scan the same code into one batch at the same moment: every piece is counted', async () => {
  const batch = await newBatch();
  const code = fresh();
  await scan(batch, code);
  await Promise.all(Array.from({ length: 8 }, () => act(batch, scanOf(code))));
  const lines = await linesOf(batch);
  expect(new Set(lines.map((one) => one.item?.id)).size).toBe(1);
  expect(await stockOf(lines[0]?.item?.id ?? 0)).toBe(9);
});

test('one back: the item goes, added units go, and sent twice it is taken back once', async () => {
  const batch = await newBatch();
  const first = await scan(batch, fresh());
  const more = await scan(batch, first.item?.sku ?? '', { quantity: 4 });
  const undo = { act: 'undo' as const, of: more.key };
  await act(batch, undo, undo);
  expect(await stockOf(first.item?.id ?? 0)).toBe(1);
  const [done] = await act(batch, { act: 'undo', of: first.key });
  expect(done?.lines).toMatchObject([{ isUndone: true }]);
  expect((await sheet(first.item?.id ?? 0)).item.standing).toBe('deleted');
  expect((await batchOf(batch)).totals).toMatchObject({ lines: 0, units: 0 });
});

test('what is asked is answered later, by whoever scans', async () => {
  const batch = await newBatch();
  const line = await scan(batch, fresh(), { asksGrade: true, asksPrice: true });
  expect(line.needs.map((one) => one.what)).toEqual(['grade', 'price']);
  const [done] = await act(batch, { act: 'answer', of: line.key, grade: 'fair', price: 750 });
  expect(done?.lines).toMatchObject([{ item: { condition: 'fair', price: 750 } }]);
  expect(done?.lines[0]?.needs.filter((one) => one.what !== 'title')).toEqual([]);
});

test('pieces are meant for the accounts that were named, and for no other', async () => {
  const accounts = (await call<{ accounts: { id: number; market: string }[] }>('GET', '/accounts')).body.accounts;
  const [one] = accounts.filter((account) => account.market === 'hallowick');
  const batch = await newBatch();
  const line = await scan(batch, book(), { accounts: [one?.id ?? 0], price: { by: 'fixed', amount: 1_500 } });
  expect((await whole(batch, line.id)).nets.map((net) => net.accountId)).toEqual([one?.id]);
  // The totals speak of no other account either.
  expect((await batchOf(batch)).totals.nets.map((net) => net.accountId)).toEqual([one?.id]);
});

test('a price by what such things sold for', async () => {
  const batch = await newBatch();
  const line = await scan(batch, book(), { price: { by: 'sales', days: 365, times: 90 }, mostDays: 1 });
  const done = await whole(batch, line.id);
  expect(done.sales?.median).toBeGreaterThan(0);
  expect(done.item?.price).toBe(Math.round((done.sales?.median ?? 0) * 0.9));
  expect(done.leave).toMatch(/stand \d+ days/);
});

test('the total is shared out to the cent and written into the costs; done again it comes to the same', async () => {
  const batch = await newBatch({ totalCost: 1_000 });
  const there = await scan(await newBatch(), fresh(), { cost: 100, quantity: 3 });
  await scan(batch, fresh());
  const two = await scan(batch, fresh());
  await scan(batch, there.item?.sku ?? '');
  const before = await batchOf(batch);
  expect(before.totals).toMatchObject({ cost: 1_000, pieces: 3, units: 3, withoutCost: 0 });
  for (const items of [3, 0]) expect((await call('POST', `/batches/${batch}/share`, {})).body).toEqual({ items });
  expect((await sheet(two.item?.id ?? 0)).item.cost).toBe(333);
  expect((await sheet(there.item?.id ?? 0)).item.cost).toBe(158);
  const change = { baseVersion: before.version, shareBy: 'hand', shares: { [two.id]: 2_000 } };
  expect((await call('PATCH', `/batches/${batch}`, change)).status).toBe(200);
  expect(await call('POST', `/batches/${batch}/share`, {})).toMatchObject({ status: 422, body: { field: 'shares' } });
  expect((await call('PATCH', `/batches/${batch}`, change)).status).toBe(409);
});

test('a closed batch takes nothing more, and the scan is told so', async () => {
  const batch = await newBatch();
  const { version } = await batchOf(batch);
  await call('PATCH', `/batches/${batch}`, { baseVersion: version, state: 'closed' });
  const [done] = await act(batch, scanOf(fresh()));
  expect(done).toMatchObject({ lines: [], problem: { message: expect.stringContaining('closed') } });
  expect(await linesOf(batch)).toEqual([]);
});

test('a batch holds five thousand lines: the next is refused and says so, and the totals still come', async () => {
  const batch = await newBatch({ totalCost: 100_000 });
  const line = await scan(batch, fresh());
  await database().execute(sql`
    insert into batch_line (batch_id, line_key, scanned, code, kind, finding, said, item_id, units, units_before, cost_before, settings, asks_grade, asks_price, found, silent, done_at, by_name, at)
    select ${batch}, uuid(), l.scanned, l.code, 'stock', 'known', '', l.item_id, 1, 1, 100, l.settings, 0, 0, '[]', '[]', l.at, l.by_name, l.at
      from batch_line l join seq_1_to_4999 s where l.id = ${line.id}`);
  expect((await batchOf(batch)).totals).toMatchObject({ lines: 5_000, units: 5_000, cost: 100_000 });
  const [refused] = await act(batch, scanOf(fresh()));
  expect(refused?.problem).toMatchObject({
    message: expect.stringContaining('5,000 lines'),
    fix: expect.stringContaining('another batch'),
  });
  expect((await linesOf(batch, 'limit=200')).length).toBe(200);
  // Of three that come together two find room.
  await database().execute(sql`delete from batch_line where batch_id = ${batch} and id <> ${line.id} limit 2`);
  const three = await act(batch, scanOf(fresh()), scanOf(fresh()), scanOf(fresh()));
  expect(three.map((one) => [one.lines.length, one.problem?.message ?? ''])).toEqual([
    [1, ''],
    [1, ''],
    [0, expect.stringContaining('5,000 lines')],
  ]);
});

test('a piece is moved to another batch by its field, and both count it right', async () => {
  const [from, to] = [await newBatch(), await newBatch()];
  const line = await scan(from, fresh());
  const { item } = await sheet(line.item?.id ?? 0);
  await call('PATCH', `/items/${item.id}`, { baseVersion: item.version, patch: { batch: `B${to}` } });
  expect((await batchOf(from)).totals).toMatchObject({ pieces: 0, units: 0 });
  expect((await batchOf(to)).totals).toMatchObject({ pieces: 1, units: 1 });
  expect((await linesOf(from)).length).toBe(0);
  expect((await linesOf(to)).map((one) => one.id)).toEqual([line.id]);
});

test('a whole batch is taken back as a run: its items go, added units go, what was there before stays', async () => {
  const there = await scan(await newBatch(), fresh(), { quantity: 3 });
  const batch = await newBatch();
  const one = await scan(batch, fresh());
  const gone = await scan(batch, fresh());
  await scan(batch, there.item?.sku ?? '', { quantity: 2 });
  const back = await scan(batch, there.item?.sku ?? '', { quantity: 5 });
  await act(batch, { act: 'undo', of: gone.key }, { act: 'undo', of: back.key });
  const { runId } = await batchOf(batch);
  expect((await call('POST', `/runs/${runId}/undo`, {})).status).toBe(201);
  expect((await sheet(one.item?.id ?? 0)).item.standing).toBe('deleted');
  expect((await sheet(gone.item?.id ?? 0)).item.standing).toBe('deleted');
  expect(await stockOf(there.item?.id ?? 0)).toBe(3);
  expect((await batchOf(batch)).isTakenBack).toBe(true);
});

test('what others offer of a piece, by condition and by who sends, the cheapest with delivery first', async () => {
  const batch = await newBatch();
  const line = await scan(batch, book());
  await whole(batch, line.id);
  type Offers = { offers: { from: string; ships: string; price: number; delivery: number }[]; silent: string[] };
  const { body } = await call<Offers>('GET', `/batch-lines/${line.id}/offers`);
  expect(new Set(body.offers.map((one) => one.from))).toEqual(new Set(['Crateway', 'Lotbarn']));
  expect(body.offers.filter((one) => one.from === 'Crateway').map((one) => one.ships)).toContain('warehouse');
  const totals = body.offers.map((one) => one.price + one.delivery);
  expect(totals).toEqual([...totals].sort((a, b) => a - b));
});

test('a reminder comes up on its day, and not after it was let go', async () => {
  const batch = await newBatch();
  const line = await scan(batch, fresh());
  const id = line.item?.id ?? 0;
  const remind = async (remindOn: string | null) => {
    const { item } = await sheet(id);
    const patch = { remindOn, remindOf: 'ask the publisher' };
    expect((await call('PATCH', `/items/${id}`, { baseVersion: item.version, patch })).status).toBe(200);
  };
  type Reminders = { reminders: { itemId: number; of: string }[] };
  const due = async () =>
    (await call<Reminders>('GET', '/reminders')).body.reminders.filter((one) => one.itemId === id).map((one) => one.of);
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  await remind(day(2));
  expect(await due()).toEqual([]);
  await remind(day(0));
  expect(await due()).toEqual(['ask the publisher']);
  await remind(null);
  expect(await due()).toEqual([]);
});

test('settings are kept under a name, and two people do not overwrite each other', async () => {
  const name = `Paperbacks ${randomUUID().slice(0, 6)}`;
  const settings = (await newBatch().then(batchOf)).settings;
  const made = await call<{ id: number }>('PUT', '/intake-presets', { name, settings });
  expect(made.status).toBe(200);
  expect((await call('PUT', '/intake-presets', { name, settings })).status).toBe(409);
  const changed = { ...settings, cost: 50 };
  expect((await call('PUT', '/intake-presets', { name, settings: changed, baseVersion: 1 })).status).toBe(200);
  expect((await call('PUT', '/intake-presets', { name, settings, baseVersion: 1 })).status).toBe(409);
  const { presets } = (
    await call<{ presets: { id: number; name: string; settings: unknown }[] }>('GET', '/intake-presets')
  ).body;
  expect(presets.find((one) => one.name === name)?.settings).toEqual(changed);
  expect((await call('DELETE', `/intake-presets/${made.body.id}`)).status).toBe(200);
});
