import { commandCode } from '../../../src/core/batch';
import type { Answer } from '../../../src/http/interface';
import { newBatch, scan, strangeCode, whole } from '../../support/intake';
import { readyItem } from '../../support/items';
import { codesOn, printed } from '../../support/printed';
import { call, stack, until } from '../../support/stack';

const printer = `${stack.markets}/printer`;
const paper = (isOut: boolean) =>
  fetch(`${printer}/api/paper`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ isOut }),
  });
type Printed = { job: string; title: string; file: string };
const done = async (): Promise<Printed[]> =>
  ((await (await fetch(`${printer}/api/jobs`)).json()) as { printed: Printed[] }).printed;
const filesOf = async (file: string) => new Uint8Array(await (await fetch(`${printer}/files/${file}`)).arrayBuffer());
const queue = async () => (await call<Answer<'GET /labels/queue'>>('GET', '/labels/queue')).body.jobs;
const stateOf = (id: number) => async () => (await queue()).find((one) => one.id === id)?.state;
const print = (body: unknown) => call<{ id: number; count: number }>('POST', '/labels/print', body);

let used = (Math.floor(Date.now() / 1_000) % 1_000_000) + 50_000_000;
const fresh = () => strangeCode(used++);

afterAll(() => paper(false));

test('labels of items as a PDF: one for each unit, each read back', async () => {
  const item = await readyItem({}, 3);
  const response = await fetch(`${stack.base}/api/v1/labels/file`, {
    method: 'POST',
    headers: { authorization: `Bearer ${stack.token}`, 'content-type': 'application/json' },
    body: JSON.stringify({ kind: 'item', size: 'roll-58x32', items: [item.id], copies: 'units' }),
  });
  expect(response.headers.get('content-type')).toBe('application/pdf');
  const pages = printed(new Uint8Array(await response.arrayBuffer()), 203);
  expect((await Promise.all(pages.map(codesOn))).flat()).toEqual(Array(3).fill(item.sku));
});

test('a printer that is out says so and holds the queue; what waits is printed in its order when it is back, once', async () => {
  await paper(true);
  const items = [await readyItem(), await readyItem(), await readyItem()];
  const ids: number[] = [];
  for (const item of items) ids.push((await print({ kind: 'item', size: 'roll-40x20', items: [item.id] })).body.id);
  await until(
    async () => (await queue()).find((one) => one.id === ids[0])?.message ?? '',
    (said) => said.includes('Out of labels'),
  );
  expect((await queue()).filter((one) => ids.includes(one.id)).map((one) => one.state)).toEqual(
    Array(3).fill('waiting'),
  );
  await call('POST', `/labels/queue/${ids[1]}/stop`, {});
  await paper(false);
  await until(stateOf(ids[2] ?? 0), (state) => state === 'printed');
  expect(await stateOf(ids[0] ?? 0)()).toBe('printed');
  expect(await stateOf(ids[1] ?? 0)()).toBe('stopped');
  const jobs = (await done()).filter((one) => ids.some((id) => one.job.startsWith(`${id}-`))).reverse();
  const read = await Promise.all(
    jobs.map(async (one) => codesOn(printed(await filesOf(one.file), 203)[0] ?? Buffer.alloc(0))),
  );
  expect(read).toEqual([[items[0]?.sku], [items[2]?.sku]]);
});

test('as one scans: the label of each piece, one for each unit, when it is known what it is', async () => {
  const batch = await newBatch();
  const code = fresh();
  const line = await scan(batch, code, { label: 'roll-58x32', quantity: 2 });
  await whole(batch, line.id);
  const again = await scan(batch, line.item?.sku ?? '', { label: 'roll-58x32' });
  expect(again.kind).toBe('stock');
  await until(
    async () => (await queue()).filter((one) => one.title.endsWith(code) || one.title.endsWith(line.item?.sku ?? '-')),
    (jobs) => jobs.length === 2 && jobs.every((one) => one.state === 'printed'),
  );
  const own = (await done()).filter((one) => one.title.endsWith(code));
  expect(own).toHaveLength(1);
  const pages = printed(await filesOf(own[0]?.file ?? ''), 203);
  expect((await Promise.all(pages.map(codesOn))).flat()).toEqual([line.item?.sku, line.item?.sku]);
});

test('commands, shelves, a batch; what cannot be printed is refused with its place', async () => {
  const preview = (body: unknown) => call<Answer<'POST /labels/preview'>>('POST', '/labels/preview', body);
  const commands = await preview({ kind: 'command', size: 'sheet-3x8', startAt: 5 });
  expect(commands.body.count).toBeGreaterThan(25);
  expect(commands.body.pageCount).toBe(Math.ceil((commands.body.count + 4) / 24));
  const shelves = { kind: 'shelf', size: 'roll-62x29', places: ['A-01', 'A-02'] };
  expect((await preview(shelves)).body.count).toBe(2);
  const batch = await newBatch();
  await scan(batch, fresh(), { quantity: 3 });
  expect((await preview({ kind: 'item', size: 'roll-62x29', batch, copies: 'units' })).body.count).toBe(3);
  const item = await readyItem({ sku: `LONG-${Date.now()}-${'X'.repeat(20)}` });
  const items = [item.id];
  expect(await preview({ kind: 'item', size: 'roll-25x15', items: [] })).toMatchObject({ status: 422 });
  expect(await preview({ kind: 'item', size: 'gone', items })).toMatchObject({ status: 404, body: { field: 'size' } });
  const bare = await readyItem({ barcode: '' });
  const wanted = { kind: 'item', size: 'roll-58x32', items: [bare.id], code: 'barcode' };
  expect(await preview(wanted)).toMatchObject({ status: 422, body: { field: 'code' } });
  expect(commandCode({ do: 'undo' })).toMatch(/^[A-Z]+$/);
});
