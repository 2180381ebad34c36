import { inArray } from 'drizzle-orm';
import sharp from 'sharp';
import { closeDatabase, database } from '../../../src/db/client';
import { item } from '../../../src/db/schema';
import type { Badge } from '../../../src/services/photos/find-badges';
import { small } from '../../support/drops';
import { jpeg, publishItems, readyItem, sheet, stateOn, upload } from '../../support/items';
import { accountOf, call, marketListings, stack, until } from '../../support/stack';

afterAll(closeDatabase);

const unique = Date.now().toString(36);
const photosOf = async (id: number) => (await sheet(id)).item.photos.map((photo) => photo.hash);
const authorization = { authorization: `Bearer ${stack.token}` };
const picture = async (hash: string, size = 'market'): Promise<Buffer> =>
  Buffer.from(
    await (await fetch(`${stack.base}/api/photos/${hash}-${size}`, { headers: authorization })).arrayBuffer(),
  );
const edit = (ids: number[], steps: unknown[], send = false) =>
  call<{ runId: number; items: number; title?: string }>('POST', '/edits', {
    selection: { kind: 'items', ids },
    steps,
    send,
    title: 'Photos',
  });
const kept = async (bytes: Buffer): Promise<string> => {
  const answer = await fetch(`${stack.base}/api/v1/photos`, {
    method: 'POST',
    headers: { ...authorization, 'content-type': 'image/jpeg' },
    body: new Uint8Array(bytes),
  });
  return ((await answer.json()) as { hash: string }).hash;
};
const words = { kind: 'words', shape: 'pill', words: 'Ships tomorrow', ground: '#155e52', ink: '#ffffff' };
const badgeOf = async (name: string, art: unknown = words): Promise<Badge> => {
  const { body } = await call<{ id: number }>('PUT', '/badges', { name: `${name} ${unique}`, art });
  const all = (await call<{ badges: Badge[] }>('GET', '/badges')).body.badges;
  const found = all.find((one) => one.id === body.id);
  if (!found) throw new Error('the badge was kept');
  return found;
};
const place = { anchor: 'top-left', dx: 40, dy: 40, size: 300 };
const putOn = (badge: Badge, part: Record<string, unknown> = {}) => ({
  field: 'photos',
  do: { verb: 'photo-badge', layer: { badge: badge.id, art: badge.art, place }, ...part },
});
/** A dark thing in the middle of a light ground. */
const onGround = async (tint: string) =>
  sharp({ create: { width: 1_600, height: 1_200, channels: 3, background: '#d8d4cc' } })
    .composite([
      {
        input: await sharp({ create: { width: 500, height: 400, channels: 3, background: tint } })
          .png()
          .toBuffer(),
        left: 600,
        top: 420,
      },
    ])
    .jpeg({ quality: 92 })
    .toBuffer();
async function withThing(tint: string): Promise<{ id: number; photos: string[] }> {
  const { id } = await readyItem();
  await call('PUT', `/items/${id}/photos`, { photos: [] });
  await upload(id, await onGround(tint));
  await upload(id, await jpeg(800, tint));
  return { id, photos: await photosOf(id) };
}

test('a card behind all of them, a square around the thing, taken back to the hash', async () => {
  const items = [await withThing('#402010'), await withThing('#203050')];
  const ids = items.map((one) => one.id);
  const card = await kept(await jpeg(700, '#eeeeee'));
  const done = await edit(ids, [
    { field: 'photos', do: { verb: 'photo-put', photo: card, at: 'last' } },
    { field: 'photos', do: { verb: 'photo-crop', to: 'square' } },
  ]);
  expect(done.body.items).toBe(2);
  for (const { id, photos } of items) {
    const now = await photosOf(id);
    expect(now).toHaveLength(3);
    expect(now.slice(1)).toEqual([photos[1], card]);
    const { width = 0, height = 0 } = await sharp(await picture(now[0] ?? '')).metadata();
    expect(Math.abs(width - height)).toBeLessThanOrEqual(1);
    // Close around it: the thing is 500 wide, with a little air.
    expect(width).toBeLessThan(640);
  }
  await call('POST', `/runs/${done.body.runId}/undo`, { send: false });
  for (const { id, photos } of items) expect(await photosOf(id)).toEqual(photos);
});

test('the same steps on the same original make the same bytes, whoever asks first', async () => {
  const [a, b] = [await withThing('#123456'), await withThing('#123456')];
  expect(a.photos).toEqual(b.photos);
  const badge = await badgeOf('Twice');
  const steps = [{ field: 'photos', do: { verb: 'photo-backdrop' } }, putOn(badge)];
  await edit([a.id], steps);
  const first = (await photosOf(a.id))[0] ?? '';
  const bytes = await picture(first);
  await edit([b.id], steps);
  expect((await photosOf(b.id))[0]).toBe(first);
  expect(await picture(first)).toEqual(bytes);
  // As it is seen before it is made: the same recipe, smaller.
  const { body } = await call<{ original: string; recipe: unknown }>('GET', `/photos/recipe?hash=${first}`);
  const sample = await fetch(
    `${stack.base}/api/photos/made?${new URLSearchParams({ of: body.original, recipe: JSON.stringify(body.recipe), side: '200' })}`,
    { headers: authorization },
  );
  expect((await sharp(Buffer.from(await sample.arrayBuffer())).metadata()).width).toBe(200);
});

let many = 0;
/** A bare item with one photo, each another one. */
async function withPhoto(seed: number): Promise<{ id: number; photos: string[] }> {
  const fields = { sku: `M-${unique}-${many++}`, title: `One of many ${seed}` };
  const { body } = await call<{ id: number }>('POST', '/items', { fields });
  const { body: kept } = await upload(body.id, await small(5_000 + seed));
  return { id: body.id, photos: [kept.hash ?? ''] };
}
/** The main photos of many items, as they are kept. */
async function mainsOf(ids: number[]): Promise<string[]> {
  const rows = await database().select({ id: item.id, photo: item.mainPhoto }).from(item).where(inArray(item.id, ids));
  return ids.map((id) => rows.find((row) => row.id === id)?.photo ?? '');
}

/** Four at a time, as more would only wait for one another. */
async function inFours<T, R>(all: readonly T[], work: (one: T) => Promise<R>): Promise<R[]> {
  const done: R[] = [];
  for (let at = 0; at < all.length; at += 4) done.push(...(await Promise.all(all.slice(at, at + 4).map(work))));
  return done;
}

test('a badge on 200, moved on three, drawn otherwise on all that carry it, and undone', async () => {
  const items = await Promise.all(['#301010', '#103010', '#101030'].map(withThing));
  items.push(
    ...(await inFours(
      Array.from({ length: 197 }, (_, at) => at),
      withPhoto,
    )),
  );
  const ids = items.map((one) => one.id);
  const before = items.map((one) => one.photos[0]);
  const badge = await badgeOf('Many');
  const moved = { ...place, anchor: 'bottom-right' };
  const nudged = [1, 50, 199];
  const tasksDone = (runId: number) =>
    until(
      () => call<{ tasks: { runId: number; state: string }[] }>('GET', '/tasks').then(({ body }) => body.tasks),
      (tasks) => tasks.every((one) => one.runId !== runId || one.state === 'done'),
      120_000,
    );
  const put = await edit(ids, [
    putOn(badge, { apart: Object.fromEntries(nudged.map((at) => [items[at]?.photos[0] ?? '', moved])) }),
  ]);
  await tasksDone(put.body.runId);
  const mains = () => mainsOf(ids);
  const first = await mains();
  const anchorOf = async (hash: string) =>
    (await call<{ recipe: { layers: { place: { anchor: string } }[] } }>('GET', `/photos/recipe?hash=${hash}`)).body
      .recipe.layers[0]?.place.anchor;
  const places = first.map((_, at) => (nudged.includes(at) ? 'bottom-right' : 'top-left'));
  expect(await inFours(first, anchorOf)).toEqual(places);
  // The badge is there: dark green in its corner, where the ground was.
  const { data, info } = await sharp(await picture(first[0] ?? ''))
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
  expect(at(70, 75)[0]).toBeLessThan(90);
  expect(at(1_500, 75)[0]).toBeGreaterThan(180);

  const changed = await call<{ changing: number; runId: number }>('PUT', '/badges', {
    id: badge.id,
    name: badge.name,
    art: { ...words, words: 'Ships today', shape: 'box' },
  });
  expect(changed.body.changing).toBe(200);
  await tasksDone(changed.body.runId);
  const second = await mains();
  expect(second.filter((hash, at) => hash === first[at])).toEqual([]);
  expect(await inFours(second, anchorOf)).toEqual(places);
  await tasksDone(
    (await call<{ runId: number }>('POST', `/runs/${changed.body.runId}/undo`, { send: false })).body.runId,
  );
  expect(await mains()).toEqual(first);
  await tasksDone((await call<{ runId: number }>('POST', `/runs/${put.body.runId}/undo`, { send: false })).body.runId);
  expect(await mains()).toEqual(before);
}, 300_000);

test('for one account alone: it gets the badge there; later work on the photo is followed, and its public page shows it', async () => {
  const { id, photos } = await withThing('#224466');
  const { sku } = (await sheet(id)).item as unknown as { sku: string };
  const [hallowick, shopfront] = [await accountOf('Hallowick'), await accountOf('Shopfront')];
  await publishItems([id], [hallowick, shopfront]);
  for (const account of [hallowick, shopfront])
    await until(
      () => stateOn(id, account),
      (state) => state === 'live',
    );
  const badge = await badgeOf('There');
  const there = { on: 'accounts', accounts: [hallowick] };
  const shown = async (market: string) =>
    (await marketListings(market, sku)).find((one) => one.state === 'live')?.summary.photos ?? [];
  const [elsewhere, before] = await Promise.all([shown('shopfront'), shown('hallowick')]);
  const steps = [
    { ...putOn(badge), where: there },
    { field: 'photos', where: there, do: { verb: 'photo-order', order: [2, 1] } },
  ];
  await edit([id], steps, true);
  expect(await photosOf(id)).toEqual(photos);
  const live = await until(
    () => shown('hallowick'),
    ([first, second]) => first === before[1] && second !== before[0],
  );
  expect(await shown('shopfront')).toEqual(elsewhere);
  const number = (await marketListings('hallowick', sku)).find((one) => one.state === 'live')?.id;
  const page = await (await fetch(`${stack.markets}/hallowick/listing/${number}`)).text();
  expect([...page.matchAll(/alt="Photo \d+" src="[^"]*\/([^"/]+)\.jpg"/g)].map(([, photo]) => photo)).toEqual(live);

  await edit([id], [{ field: 'photos', do: { verb: 'photo-backdrop', which: 'all' } }]);
  const { columns } = (
    await call<{ columns: { accountId: number; fields: { field: string; value: unknown }[] }[] }>('GET', `/items/${id}`)
  ).body;
  const chosen = columns.find((one) => one.accountId === hallowick)?.fields.find((one) => one.field === 'photos')
    ?.value as string[];
  const [second, first] = await Promise.all(
    chosen.map(
      async (hash) =>
        (
          await call<{ recipe: { backdrop: unknown; layers: { badge: number }[] } }>(
            'GET',
            `/photos/recipe?hash=${hash}`,
          )
        ).body.recipe,
    ),
  );
  expect(first).toMatchObject({ backdrop: { reach: 12 }, layers: [{ badge: badge.id }] });
  expect(second).toMatchObject({ backdrop: { reach: 12 }, layers: [] });
});

test('a choice that is made anew on the sheet keeps what was made for the account alone', async () => {
  const { id, photos } = await withThing('#557799');
  const oakhand = await accountOf('Oakhand');
  const badge = await badgeOf('Chosen');
  await edit([id], [{ ...putOn(badge), where: { on: 'accounts', accounts: [oakhand] } }]);
  const shown = async () => {
    const { columns } = (
      await call<{ columns: { accountId: number; fields: { field: string; value: unknown }[] }[] }>(
        'GET',
        `/items/${id}`,
      )
    ).body;
    const found = columns.find((one) => one.accountId === oakhand)?.fields.find((one) => one.field === 'photos');
    const value = found?.value as string[];
    return value.map((one) => one.slice(0, 64));
  };
  const [made = '', second = ''] = await shown();
  expect([made === photos[0], second]).toEqual([false, photos[1]]);
  await call('PUT', `/items/${id}/listings/${oakhand}`, { field: 'photos', value: [second, made] });
  expect(await shown()).toEqual([second, made]);
});

test('what cannot be done says why, per item; the others are changed', async () => {
  const { id } = await withThing('#664422');
  const { id: bare } = await readyItem();
  await call('PUT', `/items/${bare}/photos`, { photos: [] });
  const steps = [{ field: 'photos', do: { verb: 'photo-crop', to: 'square' } }];
  const { body } = await call<{
    rows: {
      id: number;
      refused: string | null;
      changes: { shots: { after: { isKept: boolean; covers: boolean }[] } | null }[];
    }[];
  }>('POST', '/edits/preview', { selection: { kind: 'items', ids: [id, bare] }, steps });
  expect(body.rows.find((one) => one.id === bare)?.refused).toBe('It has no photo');
  const [main, other] = body.rows.find((one) => one.id === id)?.changes[0]?.shots?.after ?? [];
  expect([main?.isKept, other?.isKept]).toEqual([false, true]);
  // Nothing was kept of what was only seen.
  expect(
    (
      await call<{ items: number; refused: number }>('POST', '/edits', {
        selection: { kind: 'items', ids: [id, bare] },
        steps,
        send: false,
      })
    ).body,
  ).toMatchObject({ items: 1, refused: 1 });
  const badge = await badgeOf('Over');
  const over = {
    ...putOn(badge),
    do: {
      verb: 'photo-badge',
      layer: { badge: badge.id, art: badge.art, place: { ...place, anchor: 'middle', dx: 0, dy: 0 } },
    },
  };
  const seen = await call<typeof body>('POST', '/edits/preview', {
    selection: { kind: 'items', ids: [id] },
    steps: [over],
  });
  expect(seen.body.rows[0]?.changes[0]?.shots?.after[0]?.covers).toBe(true);
});

describe('badges of one’s own', () => {
  const send = async (bytes: Buffer | string, name: string) => {
    const answer = await fetch(`${stack.base}/api/v1/badges/picture`, {
      method: 'POST',
      headers: {
        ...authorization,
        'content-type': 'application/octet-stream',
        'x-file-name': encodeURIComponent(name),
      },
      body: typeof bytes === 'string' ? bytes : new Uint8Array(bytes),
    });
    return { status: answer.status, body: (await answer.json()) as { hash: string; ratio: number; title: string } };
  };
  test('an SVG is made safe and drawn, a PNG keeps its see-through ground and takes another colour', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100"><script>alert(1)</script><image href="http://127.0.0.1/x.png"/><path d="M0 0h200v100h-200z" fill="#ff0000" onclick="x()"/></svg>';
    const { status, body } = await send(svg, 'logo.svg');
    expect([status, body.ratio]).toEqual([201, 2]);
    const art = { kind: 'picture', hash: body.hash, colour: '#0000ff' };
    const drawn = await fetch(
      `${stack.base}/api/photos/badge?${new URLSearchParams({ art: JSON.stringify(art), width: '40' })}`,
      { headers: authorization },
    );
    const { data } = await sharp(Buffer.from(await drawn.arrayBuffer()))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([...data.subarray(0, 4)]).toEqual([0, 0, 255, 255]);
  });
  test.each([
    ['words.svg', 'not a picture'],
    ['photo.jpg', 'JPEG'],
    [
      'bomb.svg',
      '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">]><svg xmlns="http://www.w3.org/2000/svg"><text>&a;</text></svg>',
    ],
  ])('%s is refused', async (name, bytes) =>
    expect((await send(name === 'photo.jpg' ? await jpeg() : bytes, name)).status).toBe(422),
  );

  test('what cannot be drawn and a name that is taken say so', async () => {
    const { name } = await badgeOf('Taken');
    expect((await call('PUT', '/badges', { name, art: words })).status).toBe(409);
    expect(
      (await call('PUT', '/badges', { name: `Signs ${unique}`, art: { ...words, words: '早い' } })).body,
    ).toMatchObject({ field: 'words' });
  });
});
