import { eq } from 'drizzle-orm';
import ExcelJS from 'exceljs';
import { closeDatabase, database } from '../../../src/db/client';
import { fileImport, task } from '../../../src/db/schema';
import { download, sendFile } from '../../support/files';
import { jpeg, readyItem, sheet, strapOfTwo } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';
import { zipOf } from '../../support/zip';

afterAll(closeDatabase);

type Import = {
  state: string;
  exportId: number | null;
  tiedBy: string | null;
  counts: Record<'same' | 'kept' | 'change' | 'conflict' | 'new' | 'refused', number>;
  columns: { header: string; column: string | null }[];
  runId: number | null;
};
type Row = {
  line: number;
  kind: string;
  itemId: number | null;
  why: string | null;
  column: string | null;
  cells: { column: string; now: string; file: string; becomes: string; said?: string }[];
};

const exported = async (ids: number[], columns: string[]) =>
  (
    await call<{ exportId: number; finished: boolean }>('POST', '/exports', {
      selection: { kind: 'items', ids },
      columns,
      title: 'Round trip',
    })
  ).body;
const fileOf = async (id: number, format: string, more = '') =>
  (await download(`/exports/${id}/file?format=${format}${more}`)).bytes;
const importOf = async (id: number) => (await call<Import>('GET', `/imports/${id}`)).body;
const rowsOf = async (id: number, kind = '') =>
  (await call<{ rows: Row[] }>('GET', `/imports/${id}/rows${kind && `?kind=${kind}`}`)).body.rows;
async function compared(name: string, contents: string | Buffer, options?: Record<string, unknown>) {
  const { id } = await sendFile(name, contents);
  if (options) await call('PATCH', `/imports/${id}`, { options });
  await call('POST', `/imports/${id}/check`, {});
  const seen = await until(
    () => importOf(id),
    (one) => one.state === 'checked',
  );
  return { id, ...seen };
}
async function applied(id: number, send = false) {
  const begun = await call<{ runId: number }>('POST', `/imports/${id}/apply`, { send });
  expect(begun.status).toBe(201);
  const seen = await until(
    () => importOf(id),
    (one) => one.state === 'applied',
  );
  return { ...seen, runId: begun.body.runId };
}

describe('a file that is written out and read back', () => {
  test.each(['csv', 'xlsx', 'json', 'ndjson', 'xml'])('as %s changes nothing', async (format) => {
    const item = await readyItem({
      title: '=1+1 “quoted”, with; signs',
      keywords: ['a, b', 'c'],
      barcode: '0012345678905',
    });
    const strap = await readyItem({ ...strapOfTwo });
    const hallowick = await accountOf('Hallowick');
    const columns = [
      'sku',
      'title',
      'price',
      'quantity',
      'keywords',
      'description',
      'barcode',
      'row.variation',
      `on.${hallowick}.title`,
      `on.${hallowick}.price`,
    ];
    const { exportId, finished } = await exported([item.id, strap.id], columns);
    expect(finished).toBe(true);
    const back = await compared(`back.${format}`, await fileOf(exportId, format));
    expect(back).toMatchObject({
      exportId,
      tiedBy: 'row.item',
      counts: { change: 0, conflict: 0, new: 0, refused: 0 },
    });
    expect(back.counts.same).toBe(4);
    expect(back.columns.map((one) => one.column)).not.toContain(null);
  });

  test('changed: seen before, carried out as one run with an account’s own words, taken back as a whole', async () => {
    const item = await readyItem({ price: 4_000 });
    const strap = await readyItem({ ...strapOfTwo });
    const hallowick = await accountOf('Hallowick');
    const { exportId } = await exported(
      [item.id, strap.id],
      ['sku', 'title', 'price', 'quantity', `on.${hallowick}.title`],
    );
    const lines = (await fileOf(exportId, 'csv')).toString('utf8').split('\r\n');
    const changed = lines
      .map((line) =>
        line.includes(item.sku) ? line.replace('40.00', '44.50').replace(/(,[^,]*),([^,]*)$/, ',Their words,$2') : line,
      )
      .join('\r\n');
    expect(changed).not.toBe(lines.join('\r\n'));
    const back = await compared('changed.csv', changed);
    expect(back.counts).toMatchObject({ change: 1, refused: 0 });
    const [row] = await rowsOf(back.id, 'change');
    expect(row).toMatchObject({
      itemId: item.id,
      cells: [
        { column: 'price', now: '40.00', becomes: '44.50' },
        { column: `on.${hallowick}.title`, becomes: 'Their words' },
      ],
    });
    // Nothing is changed by looking.
    expect((await sheet(item.id)).item.price).toBe(4_000);
    const { runId } = await applied(back.id);
    const after = await call<{
      item: { price: number };
      columns: { accountId: number; fields: { field: string; value: unknown; origin: string }[] }[];
    }>('GET', `/items/${item.id}`);
    expect(after.body.item.price).toBe(4_450);
    const title = after.body.columns
      .find((one) => one.accountId === hallowick)
      ?.fields.find((one) => one.field === 'title');
    expect(title).toMatchObject({ value: 'Their words', origin: 'override' });
    await call('POST', `/runs/${runId}/undo`, {});
    expect((await sheet(item.id)).item.price).toBe(4_000);
  });

  test('units of a combination by its own row; the table stays', async () => {
    const strap = await readyItem({ ...strapOfTwo });
    const { exportId } = await exported([strap.id], ['sku', 'row.variation', 'quantity']);
    const csv = (await fileOf(exportId, 'csv')).toString('utf8');
    const [head = '', ...rest] = csv.trimEnd().split('\r\n');
    const at = head.split(',').indexOf('Stock');
    const lines = rest.map((line, index) =>
      index === 1
        ? line
            .split(',')
            .map((cell, column) => (column === at ? '7' : cell))
            .join(',')
        : line,
    );
    const back = await compared('units.csv', [head, ...lines].join('\r\n'));
    expect(back.counts).toMatchObject({ change: 1, same: 2 });
    await applied(back.id);
    const { body } = await call<{ item: { quantity: number; variations: { quantity: number }[] } }>(
      'GET',
      `/items/${strap.id}`,
    );
    expect(body.item.variations.map((one) => one.quantity)).toEqual([7, 2]);
    expect(body.item.quantity).toBe(9);
  });
});

test('listings and history are written out to be looked at, in every format', async () => {
  const item = await readyItem({ price: 3_300 });
  const account = await accountOf('Hallowick');
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'title', value: 'Their own words' });
  const text = async (kind: string, format: string) => {
    const { body } = await call<{ exportId: number }>('POST', '/exports', {
      kind,
      selection: { kind: 'items', ids: [item.id] },
    });
    return (await fileOf(body.exportId, format)).toString('utf8');
  };
  const listings = (await text('listings', 'ndjson'))
    .trimEnd()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(listings.find((one) => one.account === 'Hallowick')).toMatchObject({
    sku: item.sku,
    state: 'Draft',
    price: 33,
    currency: 'EUR',
  });
  expect(await text('history', 'csv')).toContain(`,typing,${item.sku},Hallowick,Title,,Their own words`);
});

test('sales of items are written out, and of anything the columns that were chosen, in their order', async () => {
  const item = await readyItem({ price: 3_000 }, 3);
  const sold = await call('POST', `/items/${item.id}/sold`, { quantity: 2, unitPrice: 2_500 });
  expect(sold.status).toBe(201);
  const lines = async (kind: string, columns: string[]) => {
    const selection = { kind: 'items', ids: [item.id] };
    const { body, status } = await call<{ exportId: number }>('POST', '/exports', { kind, selection, columns });
    return status === 201 ? (await fileOf(body.exportId, 'csv')).toString('utf8').trimEnd().split('\r\n') : status;
  };
  expect(await lines('sales', ['stock number', 'quantity', 'total'])).toEqual([
    'stock number,quantity,total',
    `${item.sku},2,50.00`,
  ]);
  const [head] = (await lines('listings', ['state', 'sku'])) as string[];
  expect(head).toBe('State,Stock number');
  expect(await lines('sales', ['nothing of ours'])).toBe(422);
});

describe('what has happened since', () => {
  test('a sale is not undone by an old file; changed on both sides somebody decides', async () => {
    const item = await readyItem({ title: 'As written out' }, 5);
    const { exportId } = await exported([item.id], ['sku', 'title', 'quantity', 'location']);
    const csv = (await fileOf(exportId, 'csv')).toString('utf8');
    await call('POST', `/items/${item.id}/sold`, { quantity: 2, unitPrice: 1_000 });
    await call('PATCH', `/items/${item.id}`, {
      baseVersion: (await sheet(item.id)).item.version,
      patch: { title: 'Changed here' },
    });
    const back = await compared('old.csv', csv.replace('As written out', 'Changed there'));
    expect(back.counts).toMatchObject({ conflict: 1, change: 0 });
    const [row] = await rowsOf(back.id, 'conflict');
    expect(row?.cells).toMatchObject([
      { column: 'title', exported: 'As written out', now: 'Changed here', file: 'Changed there' },
    ]);
    await call('PATCH', `/imports/${back.id}`, { options: { decided: { title: 'file' } } });
    expect((await importOf(back.id)).state).toBe('checked');
    await applied(back.id);
    expect((await sheet(item.id)).item).toMatchObject({ title: 'Changed there', quantity: 3 });
  });

  test('units are set or added, as was said, and what results stands there before', async () => {
    const item = await readyItem({}, 5);
    const file = `SKU;Bestand\n${item.sku};3\n`;
    const set = await compared('set.csv', file);
    expect((await rowsOf(set.id))[0]?.cells).toMatchObject([{ now: '5', becomes: '3' }]);
    const add = await compared('add.csv', file, { units: 'add' });
    expect((await rowsOf(add.id))[0]?.cells).toMatchObject([{ now: '5', becomes: '8' }]);
    await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 1_000 });
    await applied(add.id);
    expect((await sheet(item.id)).item.quantity).toBe(7);
    // What was to be set was seen when there were five: not overwritten unseen, and said.
    const late = await applied(set.id);
    expect(late.counts.refused).toBe(1);
    expect((await rowsOf(set.id, 'refused'))[0]?.why).toBe('It was changed meanwhile');
  });
});

test('a file of somebody else’s: recognised, mended, new ones made, refused rows in a report that is read in again', async () => {
  const known = await readyItem({ barcode: '4006381333931', price: 1_000 });
  const name = known.sku.toLowerCase();
  const file = [
    'Artikelnummer;Bezeichnung;Verkaufspreis;Menge;EAN;Farbe des Himmels',
    `${known.sku};;12,50;;4,00638E+12;blau`,
    `N-${name}-1;Riemen${name.replaceAll('-', '')};29,90;3;;`,
    `N-${name}-2;Kaputt;billig;1;;`,
    `N-${name}-3;Formel;=B2*2;1;;`,
  ].join('\r\n');
  const back = await compared('fremd.csv', Buffer.from(file, 'latin1'));
  expect(back.columns.map((one) => one.column)).toEqual(['sku', 'title', 'price', 'quantity', 'barcode', null]);
  expect(back.counts).toEqual({ same: 0, kept: 0, change: 1, conflict: 0, new: 1, refused: 2 });
  expect((await rowsOf(back.id, 'refused')).map((one) => [one.line, one.column, one.why])).toEqual([
    [4, 'Price', 'This is not an amount'],
    [5, 'Price', 'A formula stands here, not its value'],
  ]);
  const { runId } = await applied(back.id);
  expect((await sheet(known.id)).item.price).toBe(1_250);
  const made = await call<{ items: { id: number; sku: string; quantity: number }[] }>(
    'GET',
    `/items?q=Riemen${name.replaceAll('-', '')}`,
  );
  expect(made.body.items).toMatchObject([{ sku: `N-${name}-1`, quantity: 3 }]);
  const report = await download(`/imports/${back.id}/report`);
  const text = report.bytes.toString('utf8');
  expect(text.split('\r\n').slice(0, 2)).toEqual([
    'Artikelnummer;Bezeichnung;Verkaufspreis;Menge;EAN;Farbe des Himmels;why',
    `N-${name}-2;Kaputt;billig;1;;;This is not an amount`,
  ]);
  const again = await compared('mended.csv', text.replace('billig', '5,00').replace("'=B2*2", '6,00'));
  expect(again.counts).toMatchObject({ new: 2, refused: 0 });
  expect(again.columns.at(-1)?.column).toBeNull();
  // Read in once more, what was made is found: nothing is made twice.
  expect((await compared('once-more.csv', Buffer.from(file, 'latin1'))).counts).toMatchObject({
    same: 2,
    new: 0,
    refused: 2,
  });
  // Taken back, what was made is gone from the inventory.
  await call('POST', `/runs/${runId}/undo`, {});
  expect((await call<{ items: unknown[] }>('GET', `/items?q=Riemen${name.replaceAll('-', '')}`)).body.items).toEqual(
    [],
  );
});

test('photos come along in a ZIP by their names; one that is missing, or lies inside the own net, is refused with its row', async () => {
  const [one, two, three] = [await readyItem(), await readyItem(), await readyItem()];
  const table = [
    'sku,photos',
    `${one.sku},"Front.jpg, back.JPG"`,
    `${two.sku},missing.jpg`,
    `${three.sku},http://127.0.0.1:1/a.jpg`,
    `P-${one.sku},Front.jpg`,
  ].join('\n');
  const zip = await zipOf({
    'shop/table.csv': table,
    'shop/photos/front.jpg': await jpeg(700, '#aa5544'),
    'shop/photos/back.jpg': await jpeg(700, '#44aa55'),
  });
  const back = await compared('shop.zip', zip);
  expect(back.counts).toMatchObject({ change: 3, new: 1, refused: 0 });
  await applied(back.id);
  const photos = async (id: number) => (await sheet(id)).item.photos.length;
  expect([await photos(one.id), await photos(two.id), await photos(three.id)]).toEqual([2, 1, 1]);
  expect((await rowsOf(back.id, 'refused')).map((row) => row.why)).toEqual([
    'The photo missing.jpg did not come along',
    'This address leads into a net that Netting does not speak to',
  ]);
  const [made] = (await call<{ items: { photoCount: number }[] }>('GET', `/items?q=P-${one.sku}&limit=1`)).body.items;
  expect(made).toMatchObject({ photoCount: 1 });
});

test('two that compare at once keep every row once; said otherwise meanwhile, what was compared before is gone', async () => {
  const item = await readyItem();
  const { id } = await sendFile('twice.csv', `SKU,Title,Place\n${item.sku.toLowerCase()},Another,P-1\n`);
  const both = await Promise.all([1, 2].map(() => call('POST', `/imports/${id}/check`, {})));
  expect(both.map((one) => one.status).sort()).toContain(201);
  await until(
    () => importOf(id),
    (one) => one.state === 'checked',
  );
  expect(await rowsOf(id)).toMatchObject([{ itemId: item.id, kind: 'change' }]);
  await call('PATCH', `/imports/${id}`, { ties: ['sku', null, 'location'] });
  expect(await importOf(id)).toMatchObject({ state: 'open', counts: { change: 0 } });
  expect(await rowsOf(id)).toEqual([]);
  expect((await call('POST', `/imports/${id}/apply`, { send: false })).status).toBe(409);
  await call('POST', `/imports/${id}/check`, {});
  expect((await rowsOf(id))[0]?.cells.map((cell) => cell.column)).toEqual(['location']);
  const twice = await Promise.all([1, 2].map(() => call('POST', `/imports/${id}/apply`, { send: false })));
  expect(twice.map((one) => one.status).sort()).toEqual([201, expect.any(Number)]);
  expect(twice.filter((one) => one.status === 201)).toHaveLength(1);
});

describe('what cannot be read is said', () => {
  test.each([
    ['letter.pdf', '%PDF-1.4 nothing', 'This is a PDF, not a table'],
    ['empty.csv', '', 'This file is empty'],
    ['broken.json', '[{"a":1},', 'After record'],
    ['broken.xlsx', 'PK\u0003\u0004nothing', 'packed, and broken'],
  ])('%s', async (name, contents, sentence) => {
    const answer = await sendFile(name, contents);
    expect(answer.status).toBe(422);
    expect(answer.title).toContain(sentence);
  });

  test('two rows of one item, an item that is gone, a number of several, a column that is none', async () => {
    const [one, two] = [await readyItem({ barcode: '9780000000002' }), await readyItem({ barcode: '9780000000002' })];
    const back = await compared(
      'odd.csv',
      `item,title\n${one.id},First\n${one.id},Second\n999999999,Third\nx,Fourth\n`,
    );
    expect((await rowsOf(back.id, 'refused')).map((row) => row.why)).toEqual([
      'This is said in line 2 already',
      'There is no item 999999999',
      "“x” is no item's number",
    ]);
    const several = await compared('several.csv', 'ean,title\n9780000000002,Which\n');
    expect((await rowsOf(several.id))[0]?.why).toBe('Several items have 9780000000002');
    const { id } = await sendFile('cols.csv', 'a,b\n1,2\n');
    expect((await call('POST', `/imports/${id}/check`, {})).status).toBe(422);
    expect((await call('PATCH', `/imports/${id}`, { ties: ['title', 'title'] })).status).toBe(422);
    expect((await call('PATCH', `/imports/${id}`, { ties: ['nothing', null] })).status).toBe(422);
    expect((await call('PATCH', `/imports/${id}`, { ties: ['title'] })).status).toBe(422);
    expect(two.id).toBeGreaterThan(0);
  });
});

test('of a workbook any sheet is read; rows are found by their words', async () => {
  const [one, two] = [await readyItem({ price: 4_000 }), await readyItem({ price: 4_000 })];
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Notes').addRows([['To whom it may concern'], ['nothing of use']]);
  const other = book.addWorksheet('Prices & more');
  other.addRows([
    ['Stock number', 'Price'],
    [one.sku, '41.37'],
    [two.sku, '42.73'],
  ]);
  const { id } = await sendFile('two.xlsx', Buffer.from(await book.xlsx.writeBuffer()));
  const seen = (await call<{ layout: { sheets: string[] } }>('GET', `/imports/${id}`)).body;
  expect(seen.layout.sheets).toEqual(['Notes', 'Prices & more']);
  await call('PATCH', `/imports/${id}`, { layout: { sheet: 'Prices & more' } });
  expect((await importOf(id)).columns.map((column) => column.column)).toEqual(['sku', 'price']);
  await call('POST', `/imports/${id}/check`, {});
  await until(
    () => importOf(id),
    (now) => now.state === 'checked',
  );
  expect((await rowsOf(id)).map((row) => row.itemId)).toEqual([one.id, two.id]);
  const found = (q: string) =>
    call<{ rows: Row[] }>('GET', `/imports/${id}/rows?q=${encodeURIComponent(q)}`).then(({ body }) => body.rows);
  expect((await found(`${two.sku.toLowerCase()} 42`)).map((row) => row.itemId)).toEqual([two.id]);
  // No stock number has a point: only the prices could have been found.
  expect(await found('41.37 42.73')).toEqual([]);
  expect(await found('%')).toEqual([]);
});

test('a file whose carrying out broke off says so, and goes on from there', async () => {
  const item = await readyItem({ price: 4_000 });
  const { id } = await compared('one.csv', `Stock number,Price\n${item.sku},43.00\n`);
  // As a machine leaves it that went out in the middle.
  const [{ insertId }] = await database()
    .insert(task)
    .values({
      kind: 'import',
      title: 'From one.csv',
      input: { importId: id, send: false },
      state: 'failed',
      message: 'The machine went out',
      dueAt: new Date(),
      byId: 'nobody',
      byName: 'Nobody',
      createdAt: new Date(),
    });
  await database().update(fileImport).set({ state: 'applying', taskId: insertId }).where(eq(fileImport.id, id));
  const halted = async () => (await call<{ halted: string | null }>('GET', `/imports/${id}`)).body.halted;
  expect(await halted()).toBe('The machine went out');
  await call('POST', `/tasks/${insertId}/resume`, {});
  await until(
    () => importOf(id),
    (now) => now.state === 'applied',
  );
  expect(await halted()).toBeNull();
  expect((await sheet(item.id)).item.price).toBe(4_300);
});
