import { expect, test } from '@playwright/test';
import { jpeg, publishItems, readyItem, stateOn } from '../support/items';
import { accountOf, control, marketListings, until } from '../support/stack';
import { knot, saved, signedIn, signIn } from './steps';

test('with the mouse: record a camera, send it to three marketplaces, lower forty prices, see it sold and gone', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New item' }).click();
  await page.getByRole('textbox', { name: 'Title' }).fill('Orvane M4 mouse test silver 35 mm SLR film camera');
  await page.getByLabel('Brand', { exact: true }).fill('Orvane');
  await page.getByLabel('Model', { exact: true }).fill('M4');
  await page.getByLabel('Category', { exact: true }).fill('cameras/slr');
  await page.getByRole('combobox', { name: 'Condition' }).selectOption({ label: 'Very good' });
  await page.getByRole('textbox', { name: 'Condition note' }).fill('Light brassing at the edges.');
  await page.getByRole('textbox', { name: 'Description' }).click();
  await page.keyboard.type('Checked on our bench with a test film.');
  await page.getByRole('textbox', { name: 'Price in EUR', exact: true }).fill('249,00');
  await page.getByRole('textbox', { name: 'Cost in EUR' }).fill('80');
  await page.getByRole('textbox', { name: 'Weight, with its unit' }).fill('2 lb 1 oz');
  await page.getByLabel('Film format', { exact: true }).fill('35 mm');
  await page.getByLabel('Decade', { exact: true }).fill('1960s');
  const files = await Promise.all([jpeg(1600, '#806040'), jpeg(1200, '#405060')]);
  await page
    .getByLabel('Photo files')
    .setInputFiles(files.map((buffer, index) => ({ name: `camera-${index}.jpg`, mimeType: 'image/jpeg', buffer })));
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toBeVisible();
  await saved(page);
  const sku = await page.getByRole('textbox', { name: 'Stock number' }).inputValue();

  // The second photo becomes the main one by dragging.
  const first = await page.getByRole('button', { name: /^Photo 1/ }).boundingBox();
  const second = await page.getByRole('button', { name: /^Photo 2/ }).boundingBox();
  if (!first || !second) throw new Error('photos are not in view');
  const before = await page
    .getByRole('button', { name: /^Photo 1/ })
    .locator('img')
    .getAttribute('src');
  await page.mouse.move(second.x + 40, second.y + 40);
  // What moves photos comes when the mouse does.
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toHaveAttribute('aria-roledescription', 'sortable');
  await page.mouse.down();
  await page.mouse.move(first.x + 60, first.y + 40, { steps: 8 });
  await page.mouse.move(first.x + 20, first.y + 40, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Photo 1/ }).locator('img')).not.toHaveAttribute('src', before ?? '');

  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByRole('button', { name: 'Choose none' }).click();
  for (const account of [/^Hallowick/, /^Oakhand/, /^Pippet(?! finds)/])
    await page.getByRole('checkbox', { name: account }).first().check();
  await expect(page.getByRole('button', { name: /: New listing/ })).toHaveCount(3);
  await page.getByRole('button', { name: 'Send 3 listings' }).click();
  await expect(page.getByText('3 of 3 done')).toBeVisible();
  for (const market of ['hallowick', 'pippet', 'oakhand'])
    expect((await marketListings(market, sku)).map((one) => one.state)).toEqual(['live']);

  // What a buyer sees on the public page.
  await page.locator('summary').first().click();
  const [shop] = await Promise.all([
    page.context().waitForEvent('page'),
    page
      .getByRole('link', { name: /^Listing \d+/ })
      .first()
      .click(),
  ]);
  await expect(shop.locator('#price')).toHaveText('249.00 EUR');
  await expect(shop.getByRole('img', { name: 'Photo 1' })).toBeVisible();
  await shop.close();

  // Forty items five percent cheaper.
  await page.goto('/?stage=live&sort=price&dir=desc');
  const rows = page.getByRole('grid').getByRole('row');
  await rows.nth(2).waitFor();
  await rows.nth(1).getByRole('checkbox').click();
  const grid = page.getByRole('grid');
  for (let down = 0; down < 39; down++) await grid.press('Shift+ArrowDown');
  await expect(page.getByText('40 chosen', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByPlaceholder('-5').fill('-5');
  await expect(page.getByText('40 of 40 items change')).toBeVisible();
  await page.getByRole('button', { name: /^Save and send \d+ listings/ }).click();
  await expect(page.getByRole('heading', { name: '40 items are changed' })).toBeVisible();
  await page.getByRole('link', { name: 'Watch it being sent' }).click();
  await expect(page.getByText('Everything is sent')).toBeVisible({ timeout: 90_000 });
  for (const market of ['hallowick', 'pippet', 'oakhand'])
    await until(
      () => marketListings(market, sku),
      ([one]) => one?.summary.price === 23_655,
    );

  // One marketplace sells it: it is gone from the other two.
  const [there] = await marketListings('hallowick', sku);
  await page.goto(
    `${process.env.NETTING_MARKETS_PORT ? `http://127.0.0.1:${process.env.NETTING_MARKETS_PORT}` : ''}/hallowick/listing/${there?.id}`,
  );
  await page.getByRole('button', { name: 'Buy now' }).click();
  await expect(page.locator('#order')).toContainText('236.55 EUR');
  await until(
    () => marketListings('pippet', sku),
    ([one]) => one?.state === 'ended',
  );
  await until(
    () => marketListings('oakhand', sku),
    ([one]) => one?.state === 'ended',
  );
  await page.goto('/sales');
  const sale = page.getByRole('row', { name: /mouse test/ }).first();
  await expect(sale.getByTitle('Price 236.55 EUR, postage 5.95')).toHaveText('€242.50');
  await sale.getByRole('link', { name: /mouse test/ }).click();
  await expect(knot(page, 'Hallowick', 'Sold')).toBeVisible();
  await expect(knot(page, 'Oakhand', 'Ended')).toBeVisible();
});

test('a bulk change is taken back as a whole', async ({ page }) => {
  await signedIn(page);
  await page.goto('/?category=film');
  await expect(page.getByRole('grid')).toBeVisible();
  await page.getByRole('grid').press('Control+a');
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('combobox', { name: 'Field of step 1' }).selectOption({ label: 'Stock' });
  await page.getByRole('textbox', { name: 'By' }).fill('2');
  const save = page.getByRole('button', { name: /^Save [1-9]\d* items$/ });
  await expect(save).toBeEnabled();
  const count = Number(/\d+/.exec((await save.textContent()) ?? '')?.[0]);
  expect(count).toBeGreaterThanOrEqual(7);
  await save.click();
  await page.getByRole('button', { name: 'Take the whole change back' }).click();
  await expect(page.getByRole('heading', { name: `${count} items are as they were` })).toBeVisible();
});

test('the keys stay with the grid after a row was ticked with the mouse; a head is clicked anywhere in it', async ({
  page,
}) => {
  await signedIn(page);
  await page.goto('/?category=film');
  const rows = page.getByRole('grid').getByRole('row');
  await rows.nth(2).waitFor();
  await rows.nth(1).getByRole('checkbox').click();
  await expect(page.getByText('1 chosen', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+a');
  await expect(page.getByText('1 chosen', { exact: true })).toBeHidden();
  await expect(rows.nth(2)).toHaveAttribute('aria-selected', 'true');
  const head = page.getByRole('columnheader', { name: 'Item' });
  const box = await head.boundingBox();
  if (!box) throw new Error('the head is not shown');
  await page.mouse.click(box.x + box.width - 20, box.y + box.height / 2);
  await expect(head).toHaveAttribute('aria-sort', /ascending|descending/);
});

test('a sale is seen on the open page without reloading', async ({ page }) => {
  await signedIn(page);
  // A thing of its own name, so that no other sale of these minutes can stand for it.
  const title = `Brask K-2 seen sold ${Date.now().toString(36)}`;
  const item = await readyItem({ title }, 2);
  const oakhand = await accountOf('Oakhand');
  await publishItems([item.id], [oakhand]);
  await until(
    () => stateOn(item.id, oakhand),
    (state) => state === 'live',
  );
  await page.goto('/sales');
  await expect(page.getByRole('table')).toBeVisible();
  await expect(page.getByRole('row', { name: new RegExp(title) })).toHaveCount(0);
  const [listing] = await marketListings('oakhand', item.sku);
  expect((await control('oakhand', 'buy', { listing: listing?.id, quantity: 1 })).order).toBeDefined();
  await expect(page.getByRole('row', { name: new RegExp(title) })).toBeVisible({ timeout: 30_000 });
});

test('no letter that is typed into the search is lost, at whatever speed', async ({ page }) => {
  await signedIn(page);
  const words = 'camera from the harbour shop';
  for (const delay of [20, 90, 125, 160]) {
    await page.goto('/');
    const search = page.getByRole('searchbox', { name: 'Search the inventory' });
    await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
    await search.pressSequentially(words, { delay });
    await expect.poll(() => new URL(page.url()).searchParams.get('q')).toBe(words);
    await expect(search).toHaveValue(words);
  }
});
