import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { expect as plain } from '@playwright/test';
import { openChromium } from '../support/chromium.mjs';
import { client } from '../support/drive.mjs';

const expect = plain.configure({ timeout: 60_000 });
const folder = resolve(import.meta.dirname, '../../docs/screenshots');
const owner = { email: 'owner@grainhouse.example', password: 'harbour-light-35' };

const grid = (page) => page.getByRole('grid', { name: 'Inventory' });
const row = (page, name) => page.getByRole('link', { name }).first();

/** What a view shows is made ready by hand where the demo alone does not show it; each leaves the page as it is pictured. */
const views = {
  inventory: async ({ page }) => {
    await page.goto('/');
    await grid(page).getByRole('row').nth(12).waitFor();
  },
  'item-sheet': async ({ page, idOf }) => {
    await page.goto(`/items/${await idOf('C1-24000')}`);
    await expect(page.getByRole('columnheader', { name: 'Selasar' })).toBeVisible();
  },
  workbench: async ({ page, cameras }) => {
    const steps = [
      {
        field: 'price',
        do: {
          verb: 'follow-sales',
          basisPoints: 9_500,
          days: 180,
          least: 3,
          rounding: 'none',
          floor: null,
          ceiling: null,
        },
      },
      { field: 'description', do: { verb: 'after', text: 'Returns within 30 days.' } },
    ];
    const ids = (await cameras()).join(',');
    await page.goto(`/workbench?${new URLSearchParams({ ids, steps: JSON.stringify(steps) })}`);
    await page
      .getByRole('button', { name: 'Item', exact: true })
      .or(page.getByRole('tab', { name: 'Item' }))
      .first()
      .click();
    await expect(page.getByRole('button', { name: /^Save and send \d+ listings?/ })).toBeEnabled();
  },
  publish: async ({ page, films }) => {
    await page.goto(`/publish?ids=${(await films()).join(',')}`);
    await expect(page.getByRole('button', { name: /^Send \d+ listings?/ })).toBeEnabled();
  },
  outbox: async ({ page }) => {
    await page.goto('/outbox');
    await expect(page.getByRole('region', { name: 'Runs' }).getByRole('listitem').nth(3)).toBeVisible();
  },
  attention: async ({ page }) => {
    await page.goto('/attention');
    await expect(page.getByRole('region', { name: 'What should be looked at' })).toBeVisible();
  },
  marketplaces: async ({ page }) => {
    await page.goto('/marketplaces');
    await expect(page.getByRole('button', { name: 'Keep Oakhand' })).toBeVisible();
  },
  sales: async ({ page }) => {
    await page.goto('/sales');
    await expect(page.getByRole('row').nth(12)).toBeVisible();
  },
  sets: async ({ page }) => {
    await page.goto('/kits');
    await row(page, 'Three outfits from Aldern').click();
    await expect(page.getByRole('table', { name: 'Lots' }).getByRole('row').nth(9)).toBeVisible();
    await page.getByRole('button', { name: 'Prices', exact: true }).click();
    await page
      .getByRole('dialog', { name: /^Prices/ })
      .getByRole('button', { name: 'Price them' })
      .click();
    await expect(page.getByText(/lots are priced/)).toBeVisible({ timeout: 120_000 });
  },
  'what-they-get': async ({ page, idOf }) => {
    await page.goto(`/items/${await idOf('C3-24407')}/preview`);
    await expect(page.getByText('A buyer sees').first()).toBeVisible();
  },
  prices: async ({ page }) => {
    await page.getByRole('heading', { name: 'Prices and what is left' }).evaluate((one) => one.scrollIntoView());
    await expect(page.getByRole('table').filter({ hasText: 'Commission' }).getByRole('row').nth(8)).toBeVisible();
  },
  insights: async ({ page }) => {
    await page.goto('/insights');
    await page.getByRole('button', { name: 'A year', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Over time' })).toBeVisible();
  },
  'photo-desk': async ({ page, idOf }) => {
    await page.goto(`/items/${await idOf('Velmar Lyra')}`);
    await page.getByRole('button', { name: 'Work on photo 1' }).click();
    const desk = page.getByRole('dialog', { name: /^Photo 1 of/ });
    await expect(desk.getByRole('img', { name: 'The result' })).toBeVisible();
    await desk.getByRole('button', { name: 'Square' }).click();
    await desk.getByLabel('Words of the badge').fill('Ships tomorrow');
    await desk.getByLabel('Corner of the badge').selectOption('top left');
    await desk.getByRole('button', { name: 'By itself' }).first().click();
  },
  artwork: async ({ page }) => {
    await page.goto('/artwork/gallery');
    await expect(page.getByRole('grid', { name: 'Gallery' }).getByRole('gridcell').nth(9)).toBeVisible();
    await page.getByRole('grid', { name: 'Gallery' }).focus();
    for (let at = 0; at < 6; at++) await page.keyboard.press('g');
    await page.keyboard.press('Home');
  },
  photos: async ({ page }) => {
    await page.goto('/photos');
    await page.getByRole('button', { name: /^One picture on two items/ }).click();
    await expect(page.getByRole('link', { name: /^GH|^[A-Z]+\d*-\d+/ }).nth(3)).toBeVisible();
  },
  scanning: async ({ page }) => {
    await page.goto('/batches');
    await row(page, 'Handbooks from the Aldern estate').click();
    const field = page.getByRole('textbox', { name: 'Scan a code, or type it or a name' });
    await expect(field).toBeFocused();
    for (const code of ['9797440000493', '9797440000509', '9797440000493', '9797440000516']) {
      await page.keyboard.type(code);
      await page.keyboard.press('Enter');
      await expect(field).toHaveValue('');
      await expect(page.getByText(/^(Sending|No connection)/)).toHaveCount(0);
    }
  },
  packing: async ({ page }) => {
    await page.goto('/consignments');
    await row(page, 'Film for the holidays').click();
    await page.getByRole('button', { name: 'Ask for a plan' }).click();
    await page.getByRole('article', { name: 'Plan 1' }).getByRole('button', { name: 'Take this plan' }).click();
    const field = page.getByRole('textbox', { name: 'Scan a piece, or the label of a box' });
    await field.click();
    for (const code of [
      'F-345',
      'F-348',
      'F-351',
      'F-354',
      'F-345',
      'F-348',
      'F-351',
      'F-354',
      'F-345',
      'F-348',
      'F-351',
    ]) {
      await page.keyboard.type(code);
      await page.keyboard.press('Enter');
      await expect(field).toHaveValue('');
    }
  },
  files: async ({ page, call, scratch }) => {
    const { items } = (await call('GET', '/items?limit=40&category=cameras')).body;
    const lines = items
      .filter((one) => one.price !== null)
      .slice(0, 18)
      .map((one, at) => `${one.sku};${at === 5 ? 'cheap' : ((one.price * 0.95) / 100).toFixed(2)};${one.location}`);
    const path = join(scratch, 'spring-prices.csv');
    writeFileSync(path, ['Stock number;Price;Place', ...lines].join('\n'));
    await page.goto('/files');
    await page.getByLabel('A file to read in').setInputFiles(path);
    await page.getByRole('button', { name: 'Compare with the inventory' }).click();
    await expect(page.getByRole('tab', { name: /^Changes/ })).toBeVisible();
    await expect(page.getByText('Loading rows')).toHaveCount(0);
  },
  'bring-in': async ({ page, elsewhere }) => {
    await elsewhere();
    await page.goto('/bring-in');
    for (const [at, name] of ['Hallowick', 'Shopfront'].entries()) {
      if (at === 0) await page.getByRole('button', { name: new RegExp(`^${name} `) }).click();
      else await page.getByLabel('Account', { exact: true }).selectOption({ label: name });
      await page
        .getByRole('button', { name: /^Read (again|what is there)$/ })
        .first()
        .click();
      const all = page.getByRole('button', { name: 'Choose all that are not in yet' });
      await expect(all).toBeEnabled();
      await all.click();
    }
    await page.getByRole('button', { name: /^Bring in \d+$/ }).click();
    await expect(page.getByText(/\d+ pairs? to decide/)).toBeVisible({ timeout: 120_000 });
    await expect(page.getByText(/brought in: \d+ new items/)).toBeVisible({ timeout: 120_000 });
  },
};

/** Each main view of the demo's shop as a picture of 1280 × 800. */
export async function takePictures({ settings, only, say, elsewhere }) {
  const scratch = join(settings.dataFolder, 'pictures');
  mkdirSync(scratch, { recursive: true });
  const call = client(settings);
  const idsOf = async (query) => (await call('GET', `/items?${query}`)).body.items.map((one) => one.id);
  const browser = await openChromium();
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: `http://127.0.0.1:${settings.port}`,
  });
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  await page.goto('/sign-in');
  await page.getByLabel('E-mail address').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.keyboard.press('Enter');
  await expect(grid(page)).toBeVisible();
  const parts = {
    page,
    call,
    scratch,
    elsewhere,
    idOf: async (words) => (await idsOf(new URLSearchParams({ q: words, limit: '1' })))[0],
    cameras: () => idsOf('q=camera&limit=8&sort=sku&dir=asc'),
    films: () => idsOf('q=film&limit=6&sort=sku&dir=desc'),
  };
  let isFine = true;
  for (const [name, show] of Object.entries(views)) {
    if (only && !only.includes(name)) continue;
    try {
      await show(parts);
      await page.waitForLoadState('networkidle');
      // What was done is said for a while.
      await expect(page.locator('[role=status].fixed > *')).toHaveCount(0);
      await page.screenshot({ path: join(folder, `${name}.png`), animations: 'disabled' });
      say(`  ${name}`);
    } catch (error) {
      isFine = false;
      await page.screenshot({ path: join(scratch, `${name}.png`) });
      say(`  ${name} was not taken: ${error.message.split('\n').slice(0, 3).join(' ')}`);
    }
  }
  await browser.close();
  return isFine;
}
