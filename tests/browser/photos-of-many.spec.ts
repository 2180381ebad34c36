import { expect, type Locator, type Page, test } from '@playwright/test';
import { barcodeSheet, small } from '../support/drops';
import { jpeg, readyItem, sheet, upload } from '../support/items';
import { call, until } from '../support/stack';
import { signedIn } from './steps';

const unique = Date.now().toString(36);
const photosOf = async (id: number) => (await sheet(id)).item.photos.map((photo) => photo.hash);
const bare = async (sku: string): Promise<number> =>
  (await call<{ id: number }>('POST', '/items', { fields: { sku, title: `Bare ${sku}` } })).body.id;

async function drag(page: Page, from: Locator, to: { x: number; y: number }): Promise<void> {
  const box = await from.boundingBox();
  if (!box) throw new Error('nothing to drag');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
}

test('a badge is made, placed once on one item, put on all of them, moved on one, seen, and taken back', async ({
  page,
}) => {
  const items = [await readyItem(), await readyItem(), await readyItem()];
  // Each with a picture of its own: a place of its own is that picture's.
  for (const [at, { id }] of items.entries()) {
    await call('PUT', `/items/${id}/photos`, { photos: [] });
    await upload(id, await jpeg(1_000 + at, '#446688'));
  }
  const before = await Promise.all(items.map((one) => photosOf(one.id)));
  await signedIn(page);
  await page.goto(`/workbench?ids=${items.map((one) => one.id).join(',')}`);
  await page.getByLabel('Field of step 1').selectOption({ label: 'Photos' });
  await page.getByLabel('Step 1', { exact: true }).selectOption({ label: 'Put a badge on' });
  await page.getByRole('button', { name: 'Choose and place it' }).click();
  const dialog = page.getByRole('dialog', { name: 'A badge, placed once' });
  await dialog.getByLabel('Words').fill(`Tested ${unique.slice(-4)}`);
  await expect(dialog.getByRole('img', { name: 'The badge as it is drawn' })).toBeVisible();
  await dialog.getByLabel('Keep it as').fill(`Tested ${unique}`);
  await dialog.getByRole('button', { name: 'Keep the badge' }).click();
  await expect(dialog.getByRole('button', { name: `Badge Tested ${unique}` })).toHaveAttribute('aria-pressed', 'true');
  const badge = dialog.getByRole('button', { name: /^The badge: drag it/ });
  const frame = await badge.locator('..').boundingBox();
  if (!frame) throw new Error('no picture');
  await drag(page, badge, { x: frame.x + frame.width * 0.8, y: frame.y + frame.height * 0.9 });
  await expect(dialog.getByText('by the bottom right corner')).toBeVisible();
  await badge.press('ArrowLeft');
  await dialog.getByRole('button', { name: 'Put it there' }).click();

  const contact = page.getByRole('list', { name: 'Contact sheet' });
  await expect(contact.getByRole('img', { name: 'Photo 1 after' })).toHaveCount(3);
  // On one of them it goes elsewhere.
  const second = contact.getByRole('listitem').filter({ hasText: items[1]?.sku });
  await second.getByRole('button', { name: 'Move' }).click();
  const here = page.getByRole('dialog', { name: 'The badge on this photo' });
  const there = here.getByRole('button', { name: /^The badge: drag it/ });
  const picture = await there.locator('..').boundingBox();
  if (!picture) throw new Error('no picture');
  await drag(page, there, { x: picture.x + picture.width * 0.2, y: picture.y + picture.height * 0.15 });
  await here.getByRole('button', { name: 'Keep it there on this photo' }).click();
  await expect(page.getByText('Moved on 1 photo.')).toBeVisible();
  // One is left as it is.
  await contact.getByRole('checkbox', { name: `Change ${items[2]?.sku}` }).uncheck();
  await page.getByRole('button', { name: 'Save 2 items' }).click();
  await expect(page.getByRole('heading', { name: '2 items are changed' })).toBeVisible();
  const anchors = await Promise.all(
    items.map(async ({ id }) => {
      const [main] = await photosOf(id);
      const { body } = await call<{ recipe: { layers: { place: { anchor: string } }[] } }>(
        'GET',
        `/photos/recipe?hash=${main}`,
      );
      return body.recipe.layers[0]?.place.anchor;
    }),
  );
  expect(anchors).toEqual(['bottom-right', 'top-left', undefined]);
  await page.getByRole('button', { name: 'Take the whole change back' }).click();
  await expect(page.getByRole('heading', { name: '2 items are as they were' })).toBeVisible();
  expect(await Promise.all(items.map((one) => photosOf(one.id)))).toEqual(before);
});

test('photo steps by keyboard: a card put in, an order carried over, a grey spot', async ({ page }) => {
  const { id, sku } = await readyItem();
  await upload(id, await jpeg(900, '#886644'));
  await upload(id, await jpeg(910, '#448866'));
  const before = await photosOf(id);
  await signedIn(page);
  await page.goto(`/workbench?ids=${id}`);
  await page.getByLabel('Field of step 1').selectOption({ label: 'Photos' });
  await page.getByLabel('Step 1', { exact: true }).selectOption({ label: 'Put in order' });
  const row = page.getByRole('list', { name: 'Photos of one item, to be put in order' });
  await row.getByRole('button', { name: /stood at 3/ }).press('ArrowLeft');
  await expect(page.getByLabel('In this order')).toHaveValue('1, 3, 2');
  await page.keyboard.press('Alt+a');
  await page.getByLabel('Field of step 2').selectOption({ label: 'Photos' });
  await page.getByLabel('Step 2', { exact: true }).selectOption({ label: 'Put a picture in' });
  await page
    .getByLabel('Picture: file')
    .setInputFiles({ name: 'card.jpg', mimeType: 'image/jpeg', buffer: await jpeg(777, '#eeeecc') });
  await expect(page.getByRole('img', { name: 'Picture: chosen' })).toBeVisible();
  await page.keyboard.press('Alt+a');
  await page.getByLabel('Field of step 3').selectOption({ label: 'Photos' });
  await page.getByLabel('Step 3', { exact: true }).selectOption({ label: 'Set light and colours' });
  await page.getByRole('button', { name: 'By a grey spot' }).press('Enter');
  const spot = page.getByRole('button', { name: /click on a spot that is grey/ });
  await expect(spot.locator('img')).toHaveJSProperty('complete', true);
  await spot.press('Enter');
  await expect(page.getByLabel('Warmth')).not.toHaveValue('');
  await page.getByRole('button', { name: 'Save 1 item' }).click();
  await expect(page.getByRole('heading', { name: '1 item is changed' })).toBeVisible();
  const after = await photosOf(id);
  expect(after.slice(1, 3)).toEqual([before[2], before[1]]);
  expect(after).toHaveLength(4);
  expect(after[0]).not.toBe(before[0]);
  await page.goto(`/items/${id}`);
  await expect(page.getByText(sku).first()).toBeVisible();
});

test('files find their items by name; one by hand, one refused, one the same; added and seen on the wall', async ({
  page,
}) => {
  const skus = [0, 1, 2].map((at) => `PX-${unique}-${at}1`);
  const ids = await Promise.all(skus.map(bare));
  await signedIn(page);
  await page.goto('/photos');
  await expect(page.getByRole('button', { name: /^No photo/ })).toBeVisible();
  await page.getByRole('button', { name: /^No photo/ }).click();
  const first = await small(7_001);
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'image/jpeg', buffer });
  await page
    .getByLabel('Photo files for many items')
    .setInputFiles([
      file(`${skus[0]}_2.jpg`, await small(7_000)),
      file(`${skus[0]}.jpg`, first),
      file(`${skus[1]} back.jpg`, await small(7_002)),
      file('IMG_7003.jpg', await small(7_003)),
      file('again.jpg', first),
      file('broken.jpg', Buffer.from('no picture')),
    ]);
  await page.waitForURL(/\/photos\/drops\/\d+/);
  await expect(page.getByText('3 files tied to 2 items, 1 to none')).toBeVisible();
  await expect(page.getByText('broken.jpg is not a', { exact: false })).toBeVisible();
  await expect(page.getByText(`again.jpg: The same picture as ${skus[0]}.jpg`)).toBeVisible();
  // The one that says nothing is tied by hand, with the keyboard.
  await page.getByRole('button', { name: 'IMG_7003.jpg' }).press('Enter');
  await page.getByRole('button', { name: 'Tie to an item' }).press('Enter');
  const finder = page.getByRole('dialog', { name: 'Which item does 1 file show?' });
  await finder.getByLabel('Search the inventory').fill(skus[2] ?? '');
  await finder.getByRole('button', { name: `Bare ${skus[2]}` }).click();
  await expect(page.getByText('4 files tied to 3 items, 0 to none')).toBeVisible();
  // Another is dragged to another item.
  await page
    .getByRole('button', { name: `${skus[1]} back.jpg` })
    .dragTo(page.getByRole('listitem', { name: new RegExp(`^${skus[2]}:`) }));
  await expect(page.getByRole('listitem', { name: `${skus[2]}: 2 files` })).toBeVisible();
  await page.getByRole('button', { name: 'Add 4 photos to 2 items' }).click();
  await expect(page.getByText('4 added')).toBeVisible();
  expect(await Promise.all(ids.map(async (id) => (await photosOf(id)).length))).toEqual([2, 0, 2]);
  await page.getByRole('link', { name: 'Look at what was added, or take it back' }).click();
  await page.getByRole('button', { name: /^Take/ }).first().click();
  await until(
    () => Promise.all(ids.map(async (id) => (await photosOf(id)).length)),
    (counts) => counts.every((one) => one === 0),
  );
});

test('by barcode sheets and by a pattern of one’s own; a drop waits when the page is left', async ({ page }) => {
  const sku = `PB-${unique}-7`;
  await bare(sku);
  await signedIn(page);
  await page.goto('/photos');
  await page.getByLabel('Photo files for many items').setInputFiles([
    { name: 'DSC_01.jpg', mimeType: 'image/jpeg', buffer: await barcodeSheet(sku) },
    { name: 'DSC_02.jpg', mimeType: 'image/jpeg', buffer: await small(7_101) },
    { name: `shop ${sku} (3).jpg`, mimeType: 'image/jpeg', buffer: await small(7_102) },
  ]);
  await page.waitForURL(/\/photos\/drops\/\d+/);
  await expect(page.getByText('0 files tied to 0 items, 3 to none')).toBeVisible();
  const pattern = page.getByLabel('Pattern');
  await pattern.fill('shop {n}');
  await expect(page.getByRole('alert').filter({ hasText: 'Write {sku}' })).toBeVisible();
  await pattern.fill('shop {sku} ({n})');
  await page.getByRole('button', { name: 'Try it' }).click();
  await expect(page.getByText('1 file tied to 1 item, 2 to none')).toBeVisible();
  await page.getByRole('button', { name: 'By barcode' }).click();
  await expect(page.getByText('2 files tied to 1 item, 0 to none')).toBeVisible();
  await page.goto('/photos');
  await page.getByRole('list', { name: 'Drops that are not done with' }).getByRole('link').first().click();
  await expect(page.getByText('2 files tied to 1 item, 0 to none')).toBeVisible();
});

test('a lost connection is waited out, and what was stopped goes on when the same files are dropped again', async ({
  page,
  context,
}) => {
  await signedIn(page);
  await page.goto('/photos');
  const files = await Promise.all(
    [0, 1, 2, 3, 4, 5].map(async (at) => ({
      name: `LOST_${unique}_${at}.jpg`,
      mimeType: 'image/jpeg',
      buffer: await small(7_200 + at),
    })),
  );
  let refused = 0;
  await page.route('**/api/v1/photo-drops/*/files/*', async (route) => {
    if (refused++ < 4) return route.abort('connectionfailed');
    return route.continue();
  });
  await page.getByLabel('Photo files for many items').setInputFiles(files);
  await page.waitForURL(/\/photos\/drops\/\d+/);
  await expect(page.getByText('0 files tied to 0 items, 6 to none')).toBeVisible({ timeout: 20_000 });
  expect(refused).toBeGreaterThanOrEqual(10);
  await context.unroute('**/*').catch(() => undefined);
});

test('the plan and Changed send chosen fields alone, with the photos as they will stand there', async ({ page }) => {
  const { id } = await readyItem();
  await upload(id, await jpeg(930, '#553388'));
  await signedIn(page);
  const account = (await call<{ accounts: { id: number; name: string }[] }>('GET', '/accounts')).body.accounts.find(
    (one) => one.name === 'Shopfront',
  );
  await call('POST', '/publish', {
    selection: { kind: 'items', ids: [id] },
    accounts: [account?.id],
    without: [],
    as: 'live',
  });
  const state = async () => (await sheet(id)).columns.find((one) => one.accountId === account?.id)?.state;
  await until(state, (now) => now === 'live');
  const steps = [
    { field: 'photos', do: { verb: 'photo-order', order: [2, 1] } },
    { field: 'notes', do: { verb: 'set', value: 'x' } },
    { field: 'title', do: { verb: 'after', text: ' kept back' } },
  ];
  await call('POST', '/edits', { selection: { kind: 'items', ids: [id] }, steps, send: false });
  await page.goto(`/publish?ids=${id}&accounts=${account?.id}`);
  await page.getByText('What goes of listings that are there already').click();
  await page.getByLabel('Send title to Shopfront').uncheck();
  await page.getByRole('button', { name: /on Shopfront: Change/ }).click();
  await expect(page.getByRole('img', { name: 'Photos as they will stand there: 2 in this order' })).toBeVisible();
  await page.getByRole('button', { name: 'Send 1 listing' }).click();
  await page.waitForURL(/outbox/);
  type Unsent = { listings: { itemId: number; busy: boolean; fields: { field: string }[] }[] };
  const unsent = await until(
    async () =>
      (await call<Unsent>('GET', `/unsent?account=${account?.id}&limit=200`)).body.listings.find(
        (one) => one.itemId === id,
      ),
    (one) => one !== undefined && !one.busy && one.fields.every(({ field }) => field !== 'photos'),
  );
  expect(unsent?.fields.map((one) => one.field)).toContain('title');
  const dearer = [{ field: 'price', do: { verb: 'set', value: 17_100 } }];
  await call('POST', '/edits', { selection: { kind: 'items', ids: [id] }, steps: dearer, send: false });
  await page.goto(`/changed?account=${account?.id}`);
  await page.getByRole('button', { name: 'Title', exact: true }).click();
  await page.getByRole('button', { name: 'Send title on Shopfront' }).click();
  await until(
    async () =>
      (await call<Unsent>('GET', `/unsent?account=${account?.id}&limit=200`)).body.listings.find(
        (one) => one.itemId === id,
      ),
    (one) => one === undefined || one.fields.every(({ field }) => field !== 'title'),
  );
});

test('a clip is made of an item’s photos and played on its sheet', async ({ page }) => {
  test.setTimeout(300_000);
  const { id } = await readyItem();
  for (const tint of ['#204060', '#602040']) await upload(id, await jpeg(940, tint));
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await page.getByRole('button', { name: 'Make a clip' }).click();
  await expect(page.getByRole('button', { name: 'Play the clip' })).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Play the clip' }).click();
  const film = page.locator('video');
  await expect
    .poll(() => film.evaluate((one: HTMLVideoElement) => one.readyState), { timeout: 120_000 })
    .toBeGreaterThanOrEqual(2);
  expect(await film.evaluate((one: HTMLVideoElement) => [one.videoWidth, one.videoHeight, one.duration > 3])).toEqual([
    1_920,
    1_080,
    true,
  ]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take the clip off' }).click();
  await expect(page.getByRole('button', { name: 'Make a clip' })).toBeVisible();
});

test('a clip that cannot be made says why, and can be asked for again', async ({ page }) => {
  const { id } = await readyItem();
  await upload(id, await jpeg(930, '#204060'));
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const why = 'Clips need ffmpeg, which could not be installed here';
  await page.route('**/api/v1/edits', (route) =>
    route.fulfill({
      json: { runId: 1, taskId: 999_999, items: 0, listings: 0, refused: 0, total: 1, finished: false },
    }),
  );
  await page.route('**/api/v1/tasks', async (route) => {
    const answer = await route.fetch();
    const body = await answer.json();
    const failed = { ...body.tasks[0], id: 999_999, state: 'failed', message: why };
    await route.fulfill({ json: { ...body, tasks: [failed, ...body.tasks] } });
  });
  await page.getByRole('button', { name: 'Make a clip' }).click();
  await expect(page.getByRole('alert').filter({ hasText: why })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make a clip' })).toBeEnabled();
});
