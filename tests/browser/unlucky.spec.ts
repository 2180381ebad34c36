import { expect, type Page, test } from '@playwright/test';
import { halfPacked, newConsignment } from '../support/consignments';
import { newBatch, scan } from '../support/intake';
import { readyItem } from '../support/items';
import { newKit } from '../support/kits';
import { call } from '../support/stack';
import { saved, signedIn } from './steps';

/** What goes wrong on a page: words typed nowhere, values that cannot be, no connection, addresses of nothing, a narrow screen. */

const title = (page: Page) => page.getByRole('textbox', { name: 'Title', exact: true });
const itemOf = async (id: number) =>
  (await call<{ item: { title: string; price: number; sku: string; conditionNote: string } }>('GET', `/items/${id}`))
    .body.item;

test('a word typed where nothing takes it is no command; a letter alone is one, until that is switched off', async ({
  page,
}) => {
  await signedIn(page);
  await page.goto('/sales');
  await expect(page.getByRole('heading', { level: 1, name: 'Sales' })).toBeVisible();
  for (const word of ['needle', 'zq delete all net', 'antenna Nine']) {
    await page.keyboard.type(word, { delay: 30 });
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/\/sales$/);
  }
  await page.keyboard.press('?');
  await page.getByLabel('N and Shift N work wherever nothing is being written').uncheck();
  await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await page.keyboard.press('?');
  await page.getByLabel('N and Shift N work wherever nothing is being written').check();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page).toHaveURL(/\/sales$/);
  // Another letter was pressed a moment ago: half a second later it stands alone.
  await expect(async () => {
    await page.keyboard.press('n');
    await page.waitForURL(/\/items\/new/, { timeout: 1_500 });
  }).toPass();
});

test('what cannot be is said at its place and stays to be mended; the rest is saved', async ({ page }) => {
  const { id } = await readyItem({});
  const other = await readyItem({});
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const price = page.getByRole('textbox', { name: 'Price in EUR', exact: true });
  for (const wrong of ['1e3', '-5', '12.345', '999999999999']) {
    await price.fill(wrong);
    await price.press('Tab');
    await expect(price).toHaveValue(wrong);
    await expect(price).toHaveAttribute('aria-invalid', 'true');
  }
  await price.fill('1 299,50');
  await price.press('Tab');
  await saved(page);
  await expect(price).not.toHaveAttribute('aria-invalid', 'true');
  // The server alone knows that a number was given before; what is said besides is kept all the same.
  const number = page.getByRole('textbox', { name: 'Stock number', exact: true });
  await number.fill((await itemOf(other.id)).sku);
  await title(page).fill('A title beside a number that was given before');
  await expect(page.getByRole('status').filter({ hasText: 'Not saved' })).toBeVisible();
  await expect.poll(async () => (await itemOf(id)).title).toBe('A title beside a number that was given before');
  expect(await itemOf(id)).toMatchObject({ price: 129_950 });
  const note = page.getByRole('textbox', { name: 'Condition note', exact: true });
  await note.fill('x'.repeat(1_001));
  await expect(page.getByText('At most 1,000 characters')).toBeVisible();
  await expect(note).toHaveValue('x'.repeat(1_001));
});

test('without a connection nothing is passed off as new: it is said, and comes back by itself', async ({ page }) => {
  await signedIn(page);
  await page.goto('/');
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
  await page.context().setOffline(true);
  await page.getByRole('searchbox').fill('lens');
  await expect(page.getByRole('alert').filter({ hasText: 'Netting cannot be reached' }).first()).toBeVisible();
  const dock = page.getByRole('region', { name: 'Outbox' });
  await expect(dock.getByText('what you see is as it was')).toBeVisible({ timeout: 20_000 });
  await expect(dock.getByText('Everything is sent')).toBeHidden();
  await page.context().setOffline(false);
  await expect(page.getByRole('alert').filter({ hasText: 'Netting cannot be reached' })).toHaveCount(0, {
    timeout: 20_000,
  });
});

test('an address of nothing says so, and leads on', async ({ page }) => {
  await signedIn(page);
  for (const path of ['/nowhere', '/items/abc', '/items/99999999', '/runs/99999999', '/bring-in/99999999']) {
    await page.goto(path);
    await expect(page.getByRole('link', { name: 'To the inventory' })).toBeVisible();
  }
  await page.getByRole('link', { name: 'To the inventory' }).click();
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
});

test('on a phone the stages are a list behind one button', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signedIn(page);
  await page.goto('/');
  const stages = page.getByRole('navigation', { name: 'Stages of the work' });
  const sold = stages.getByRole('link', { name: /^Sold/ });
  await expect(sold).toBeHidden();
  await stages.getByRole('button', { name: /^Stages/ }).click();
  await expect(sold).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sold).toBeHidden();
  await stages.getByRole('button', { name: /^Stages/ }).press('Enter');
  await sold.click();
  await expect(page.getByRole('heading', { level: 1, name: 'Sales' })).toBeVisible();
  await expect(sold).toBeHidden();
});

test('on a phone no page moves sideways', async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 390, height: 844 });
  await signedIn(page);
  const { id } = await readyItem({});
  const { body } = await call<{ accounts: { id: number }[] }>('GET', '/accounts');
  const pages = ['/', `/items/${id}`, `/items/${id}/preview`, `/publish?ids=${id}`, '/sales', '/attention'];
  const others = ['/renewals', '/files', '/templates', '/changed', '/settings', '/routines', '/marketplaces', '/links'];
  const batch = await newBatch({ name: 'A pile with a name of some length, from a house by the harbour' });
  await scan(batch, '12345');
  const more = [
    '/batches',
    `/batches/${batch}`,
    '/consignments',
    '/kits',
    '/artwork',
    '/artwork/gallery',
    '/artwork/earnings',
    '/people',
    '/you',
    '/insights',
    '/insights?view=speed',
    `/kits/${await newKit({ name: 'Outfits with a name of some length, taken apart' })}`,
    `/consignments/${await newConsignment({ name: 'With a name of some length, to the warehouses' })}`,
    `/consignments/${await halfPacked('Packed, with a name of some length')}`,
    `/labels?ids=${id}`,
    '/differences',
    '/outbox',
    '/postage',
    '/bring-in',
    '/copies',
    '/photos',
    '/items/new',
  ];
  const wide: string[] = [];
  for (const path of [...pages, ...others, ...more, `/marketplaces/${body.accounts[0]?.id}`, `/workbench?ids=${id}`]) {
    await page.goto(path);
    await page.waitForLoadState('networkidle');
    const moved = await page.evaluate(() => {
      window.scrollTo(1_000, 0);
      return window.scrollX;
    });
    if (moved > 0) wide.push(`${path}: ${moved} px`);
  }
  expect(wide).toEqual([]);
});
