import { added, barcodeSheet, dropped, dropView, type File, small, tied } from '../../support/drops';
import { heic } from '../../support/heic';
import { sheet } from '../../support/items';
import { call, stack } from '../../support/stack';
import { zipOf } from '../../support/zip';

const unique = Date.now().toString(36).toUpperCase();
const photosOf = async (id: number) => (await sheet(id)).item.photos.map((photo) => photo.hash);

let round = 0;

/** So many items without photos, of other numbers each time: what is tried twice meets none of before. */
async function bareItems(count: number, name: string): Promise<{ id: number; sku: string }[]> {
  const made: { id: number; sku: string }[] = [];
  const mark = `${unique}${(round++).toString(36)}`;
  for (let at = 0; at < count; at++) {
    const sku = `${name}-${mark}-${100 + at}`;
    const { body } = await call<{ id: number }>('POST', '/items', { fields: { sku, title: `${name} ${at}` } });
    made.push({ id: body.id, sku });
  }
  return made;
}

describe('300 files to 60 items, 12 of them untied and 5 the same again', () => {
  test('by name, whatever follows the stock number; added in their order, taken back as one change', async () => {
    const items = await bareItems(60, 'N');
    const files: File[] = [];
    for (const [at, { sku }] of items.entries())
      for (const [k, ending] of ['_2', ' back', '', '(10)', '_1'].entries())
        if (files.length < 283) files.push({ path: `camera/${sku}${ending}.jpg`, bytes: await small(at * 5 + k + 1) });
    for (let k = 0; k < 12; k++) files.push({ path: `camera/IMG_${k}.jpg`, bytes: await small(1_000 + k) });
    for (let k = 0; k < 5; k++)
      files.push({ path: `again/${items[k]?.sku}_9.jpg`, bytes: files[k * 5]?.bytes ?? Buffer.alloc(0) });
    const { drop, sent } = await dropped(files);
    expect(sent).toBe(300);
    const view = await tied(drop);
    expect(view.counts).toMatchObject({ coming: 0, tied: 283, untied: 12, twice: 5, refused: 0, items: 57 });
    const first = view.groups.find((one) => one.sku === items[0]?.sku);
    const endings = first?.files.map((one) => one.path.replace(`camera/${items[0]?.sku}`, '').replace('.jpg', ''));
    expect(endings).toEqual(['', ' back', '_1', '_2', '(10)']);

    // The same folder again: nothing comes twice.
    expect((await dropped(files, drop)).sent).toBe(0);

    const done = await added(drop);
    expect(done.task).toMatchObject({ state: 'done', done: 57 });
    expect(done.counts).toMatchObject({ added: 283, tied: 0, untied: 12 });
    expect(await photosOf(items[0]?.id ?? 0)).toEqual(first?.files.map((one) => one.hash));
    const runId = done.task?.runId ?? 0;
    expect((await call('POST', `/runs/${runId}/undo`, { send: false })).body).toMatchObject({ items: 57 });
    expect(await photosOf(items[3]?.id ?? 0)).toEqual([]);
    // What was taken back is tied as it was, and can be put on again.
    expect((await dropView(drop)).counts).toMatchObject({ added: 0, tied: 283, untied: 12 });
    expect((await added(drop)).counts).toMatchObject({ added: 283, tied: 0 });
    expect(await photosOf(items[0]?.id ?? 0)).toEqual(first?.files.map((one) => one.hash));
  }, 240_000);

  test('by a barcode that is photographed first, and by pauses', async () => {
    const items = await bareItems(60, 'B');
    const start = Date.UTC(2026, 4, 1, 9);
    const files: File[] = [];
    let second = 0;
    const at = () => {
      second += 4;
      return new Date(start + second * 1_000);
    };
    const named = (words: string) => `IMG_${String(files.length).padStart(4, '0')}${words}.jpg`;
    // What comes before the first sheet belongs to nothing.
    for (let k = 0; k < 12; k++) files.push({ path: named(''), bytes: await small(2_000 + k, { at: at() }) });
    const belong: string[][] = [];
    for (const [index, { sku }] of items.entries()) {
      second += 300;
      files.push({ path: named('_s'), bytes: await barcodeSheet(sku, index, at()) });
      const own: string[] = [];
      // 223 photos: four of each, but three of the last seventeen.
      for (let k = 0; k < (index < 43 ? 4 : 3); k++) {
        own.push(named(''));
        files.push({ path: named(''), bytes: await small(2_100 + index * 5 + k, { at: at() }) });
      }
      belong.push(own);
    }
    for (let k = 0; k < 5; k++) files.push({ path: named('_again'), bytes: files[14 + k]?.bytes ?? Buffer.alloc(0) });
    expect(files).toHaveLength(300);
    const { drop } = await dropped(files);
    const view = await tied(drop, { way: 'barcode' });
    expect(view.counts).toMatchObject({ tied: 223, untied: 12, twice: 5, sheets: 60, items: 60, refused: 0 });
    expect(items.map(({ sku }) => view.groups.find((one) => one.sku === sku)?.files.map((one) => one.path))).toEqual(
      belong,
    );

    // Pauses part them as well: those before all, then each sheet with what follows it.
    const byTime = await tied(drop, { way: 'time', gapSeconds: 60 });
    expect(byTime.counts).toMatchObject({ items: 61, twice: 5 });
    expect(byTime.groups.map((one) => one.files.length).sort((one, other) => other - one)).toEqual([
      12,
      ...belong.map((own) => own.length + 1),
    ]);
  }, 300_000);
});

describe('by hand', () => {
  test('what a person ties stays, whatever is tried; order, tray and put aside hold', async () => {
    const [one, other] = await bareItems(2, 'H');
    if (!one || !other) throw new Error('two items were made');
    const { drop } = await dropped([
      { path: `${one.sku}_1.jpg`, bytes: await small(3_001) },
      { path: `${one.sku}_2.jpg`, bytes: await small(3_002) },
      { path: 'x.jpg', bytes: await small(3_003) },
      { path: 'y.jpg', bytes: await small(3_004) },
    ]);
    const view = await tied(drop);
    const [first, second] = view.groups[0]?.files ?? [];
    const [x, y] = view.tray;
    if (!first || !second || !x || !y) throw new Error('two and two');
    const move = (files: number[], to: unknown) => call('POST', `/photo-drops/${drop}/move`, { files, to });
    await move([x.id], { kind: 'item', item: one.id, before: second.id });
    await move([first.id], { kind: 'item', item: other.id });
    await move([y.id], { kind: 'aside' });
    const again = await tied(drop, { way: 'barcode' });
    const back = await tied(drop, { way: 'name' });
    expect(again.groups.find((group) => group.itemId === other.id)?.files.map((file) => file.id)).toEqual([first.id]);
    expect(back.groups.find((group) => group.itemId === one.id)?.files.map((file) => file.id)).toEqual([
      x.id,
      second.id,
    ]);
    expect(back.tray).toEqual([]);
    await move([x.id], { kind: 'tray' });
    expect((await tied(drop)).tray.map((file) => file.id)).toEqual([x.id]);
    await added(drop, 'first');
    expect(await photosOf(one.id)).toEqual([second.hash]);
    await call('POST', `/photo-drops/${drop}/close`, {});
    expect((await move([x.id], { kind: 'tray' })).status).toBe(409);
  });

  test('a photo that somebody added meanwhile is kept', async () => {
    const [item] = await bareItems(1, 'M');
    if (!item) throw new Error('one was made');
    const { drop } = await dropped([{ path: `${item.sku}.jpg`, bytes: await small(3_101) }]);
    await tied(drop);
    const mine = await small(3_102);
    await fetch(`${stack.base}/api/v1/items/${item.id}/photos`, {
      method: 'POST',
      headers: { authorization: `Bearer ${stack.token}`, 'content-type': 'image/jpeg' },
      body: new Uint8Array(mine),
    });
    const before = await photosOf(item.id);
    await added(drop);
    const after = await photosOf(item.id);
    expect(after.slice(0, 1)).toEqual(before);
    expect(after).toHaveLength(2);
  });
});

test('an item that has as many photos as it can keeps them, and the files stay with the reason', async () => {
  const [item, other] = await bareItems(2, 'L');
  if (!item || !other) throw new Error('two were made');
  const { drop } = await dropped([
    { path: `${item.sku}.jpg`, bytes: await small(3_200) },
    { path: `${other.sku}.jpg`, bytes: await small(3_201) },
  ]);
  const view = await tied(drop);
  const hash = view.groups.find((one) => one.itemId === other.id)?.files[0]?.hash ?? '';
  await added(drop);
  await call('PUT', `/items/${other.id}/photos`, { photos: Array(60).fill(hash) });
  const more = await dropped([{ path: `${other.sku}_2.jpg`, bytes: await small(3_202) }], drop);
  await tied(more.drop);
  const after = await added(drop);
  expect(after.counts).toMatchObject({ tied: 1, added: 2 });
  expect(after.groups[0]?.files[0]?.said).toContain('At most 60 photos');
  expect(await photosOf(other.id)).toHaveLength(60);
});

describe('bad files', () => {
  test('each says what is wrong with it, and the rest goes on', async () => {
    const [item] = await bareItems(1, 'F');
    if (!item) throw new Error('one was made');
    const good = await small(4_001);
    const zip = await zipOf({
      [`${item.sku}_1.jpg`]: await small(4_002),
      'notes.txt': 'hello',
      [`deep/${item.sku}_2.jpg`]: await small(4_003),
    });
    const { drop } = await dropped([
      { path: 'cut.jpg', bytes: (await small(4_004)).subarray(0, 900) },
      { path: 'words.jpg', bytes: Buffer.from('not a picture') },
      { path: 'empty.png', bytes: Buffer.alloc(0) },
      { path: `${item.sku}_really-a.png`, bytes: good },
      { path: `${item.sku}_phone.HEIC`, bytes: heic() },
      { path: 'season.zip', bytes: zip },
      { path: 'broken.zip', bytes: zip.subarray(0, 200) },
    ]);
    const view = await tied(drop);
    const refused = view.tray.filter((one) => one.state === 'refused');
    expect(refused.map((one) => one.path.split('/').at(-1)).sort()).toEqual([
      'broken.zip',
      'cut.jpg',
      'empty.png',
      'notes.txt',
      'words.jpg',
    ]);
    for (const one of refused) expect(one.said?.length).toBeGreaterThan(10);
    expect(view.groups[0]?.files.map((one) => one.path).sort()).toEqual([
      `${item.sku}_phone.HEIC`,
      `${item.sku}_really-a.png`,
      `season.zip/${item.sku}_1.jpg`,
      `season.zip/deep/${item.sku}_2.jpg`,
    ]);
    await added(drop);
    expect(await photosOf(item.id)).toHaveLength(4);
  });

  test('a file that did not come is named until it does; one that is sent twice is taken once', async () => {
    const bytes = await small(4_100);
    const path = `${unique}-later.jpg`;
    const { body } = await call<{ drop: number; wanted: { id: number }[] }>('POST', '/photo-drops', {
      files: [{ path, bytes: bytes.length }],
    });
    expect((await dropView(body.drop)).counts.coming).toBe(1);
    const again = await dropped([{ path, bytes }], body.drop);
    expect(again.sent).toBe(1);
    const view = await dropView(body.drop);
    expect(view.counts).toMatchObject({ coming: 0, untied: 1 });
    expect((await dropped([{ path, bytes }], body.drop)).sent).toBe(0);
  });

  test('a drop that is not there and a pattern that cannot be read say so', async () => {
    expect((await call('GET', '/photo-drops/99999999')).status).toBe(404);
    const { drop } = await dropped([{ path: 'a.jpg', bytes: await small(4_200) }]);
    expect((await call('POST', `/photo-drops/${drop}/tie`, { way: 'name', pattern: '{n}' })).body).toMatchObject({
      field: 'pattern',
    });
    expect((await call('POST', `/photo-drops/${drop}/add`, {})).body).toMatchObject({
      title: 'None of these files is tied to an item',
    });
  });
});

test('what is wrong is counted by cause and account, and mended is not there any more', async () => {
  const [item] = await bareItems(1, 'W');
  if (!item) throw new Error('one was made');
  const flawed = async (flaw: string) =>
    (
      await call<{ items: { id: number }[] }>('GET', `/photos/flawed?flaw=${flaw}&after=${item.id - 1}&limit=1`)
    ).body.items.map((one) => one.id);
  const count = async (flaw: string) =>
    (
      await call<{ counts: { flaw: string; accountId: number | null; items: number }[] }>('GET', '/photos/flaws')
    ).body.counts.find((one) => one.flaw === flaw && one.accountId === null)?.items ?? 0;
  const before = await count('none');
  expect(await flawed('none')).toEqual([item.id]);
  const { drop } = await dropped([{ path: `${item.sku}.jpg`, bytes: await small(5_001) }]);
  await tied(drop);
  await added(drop);
  expect(await count('none')).toBe(before - 1);
  expect(await flawed('none')).not.toContain(item.id);
});
