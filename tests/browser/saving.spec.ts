import { expect, test } from '@playwright/test';
import { readyItem, sheet } from '../support/items';
import { call, until } from '../support/stack';
import { saved, signedIn } from './steps';

test('a closed tab loses nothing that was typed more than a second ago', async ({ page, context }) => {
  await signedIn(page);
  const item = await readyItem();
  await page.goto(`/items/${item.id}`);
  await page.getByRole('textbox', { name: 'Title' }).fill('Typed, then the tab was closed');
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`/items/${item.id}`);
  await expect(again.getByRole('textbox', { name: 'Title' })).toHaveValue('Typed, then the tab was closed');
  await until(
    () => sheet(item.id),
    (seen) => seen.item.title === 'Typed, then the tab was closed',
  );
});

test('when the page says saved it is on disk', async ({ page }) => {
  await signedIn(page);
  const item = await readyItem();
  await page.goto(`/items/${item.id}`);
  await page.getByLabel('Place', { exact: true }).fill('Z9');
  await expect(page.locator('[data-save=typing], [data-save=saving]')).toBeVisible();
  await saved(page);
  expect((await call<{ item: { location: string } }>('GET', `/items/${item.id}`)).body.item.location).toBe('Z9');
});

test('a lost connection: what was typed is kept and saved when it is back', async ({ page, context }) => {
  await signedIn(page);
  const item = await readyItem();
  await page.goto(`/items/${item.id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await context.setOffline(true);
  await page.getByRole('textbox', { name: 'Title' }).fill('Typed without a connection');
  await expect(page.locator('[data-save=offline]')).toBeVisible();
  await context.setOffline(false);
  await saved(page);
  await until(
    () => sheet(item.id),
    (seen) => seen.item.title === 'Typed without a connection',
  );
});

test('a server that fails for a while takes neither the page away nor the place where one writes', async ({ page }) => {
  await signedIn(page);
  const item = await readyItem();
  await page.goto(`/items/${item.id}`);
  const title = page.getByRole('textbox', { name: 'Title' });
  await title.fill('Begun before');
  await saved(page);
  let failures = 0;
  await page.route(`**/api/v1/items/${item.id}`, async (route) => {
    if (route.request().method() !== 'GET') return route.continue();
    failures++;
    await route.fulfill({ status: 503, json: { code: 'failed', message: 'Not now' } });
  });
  await title.press('End');
  await page.keyboard.type(', and ');
  // Read anew after the save and at intervals, each time twice: by then the page has given the reading up once.
  await expect.poll(() => failures, { timeout: 20_000 }).toBeGreaterThan(3);
  await expect(title).toBeFocused();
  await page.keyboard.type('ended after');
  await page.unroute(`**/api/v1/items/${item.id}`);
  await saved(page);
  await until(
    () => sheet(item.id),
    (seen) => seen.item.title === 'Begun before, and ended after',
  );
});

test('what is typed while a save is being read back builds on what was just saved', async ({ page }) => {
  const item = await readyItem({ attributes: {} });
  await signedIn(page);
  await page.goto(`/items/${item.id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  // The sheet is read anew slowly: in between the page knows only what it has sent.
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route(`**/api/v1/items/${item.id}`, async (route) => {
    if (route.request().method() === 'GET') await held;
    await route.continue();
  });
  await page.getByLabel('Film format', { exact: true }).fill('35 mm');
  await saved(page);
  await expect(page.getByLabel('Film format', { exact: true })).toHaveValue('35 mm');
  await page.getByLabel('Decade', { exact: true }).fill('1970s');
  await saved(page);
  letGo();
  await until(
    async () =>
      (await call<{ item: { attributes: Record<string, string> } }>('GET', `/items/${item.id}`)).body.item.attributes,
    (attributes) => attributes['Film format'] === '35 mm' && attributes.Decade === '1970s',
  );
});

test('somebody else changed the same field: both are shown, one is chosen', async ({ page }) => {
  await signedIn(page);
  const item = await readyItem();
  await page.goto(`/items/${item.id}`);
  const title = page.getByRole('textbox', { name: 'Title' });
  await expect(title).toBeVisible();
  // Ours is held on the way until theirs is there: so it is always the second.
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route(`**/api/v1/items/${item.id}`, async (route) => {
    if (route.request().method() === 'PATCH') await held;
    await route.continue();
  });
  const onTheWay = page.waitForRequest((request) => request.method() === 'PATCH');
  await title.fill('Mine, not yet sent');
  await onTheWay;
  const { version } = (await sheet(item.id)).item;
  await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { title: 'Theirs, meanwhile' } });
  letGo();
  const bar = page.getByRole('alert').filter({ hasText: 'changed title meanwhile' });
  await expect(bar).toContainText('theirs: “Theirs, meanwhile”');
  await bar.getByRole('button', { name: 'Keep mine' }).click();
  await expect(bar).toHaveCount(0);
  await expect.poll(async () => (await sheet(item.id)).item.title).toBe('Mine, not yet sent');
  await saved(page);
});
