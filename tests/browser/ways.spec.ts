import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { comesTo, publishItems, readyItem, sheet } from '../support/items';
import { accountOf, call } from '../support/stack';
import { signedIn } from './steps';

test.beforeEach(({ page }) => signedIn(page));

test('the launcher leads to parts of pages, to accounts, and looks for whatever was typed', async ({ page }) => {
  await page.goto('/outbox');
  const go = async (text: string) => {
    await page.keyboard.press('Control+k');
    await expect(page.getByPlaceholder('Where to?')).toBeFocused();
    await page.keyboard.type(text);
  };
  await go('packing');
  await page.getByRole('option', { name: /^Packing/ }).click();
  await expect(page).toHaveURL(/\/settings#packing$/);
  await expect(page.getByRole('heading', { name: 'Packing' })).toBeInViewport();
  await go('hallowick');
  await page.getByRole('option', { name: /^Hallowick/ }).click();
  await expect(page).toHaveURL(new RegExp(`/marketplaces/${await accountOf('Hallowick')}$`));
  await go('on products');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/artwork\/gallery$/);
  await go('quince of nowhere');
  await page.keyboard.press('Enter');
  await expect(page.getByText('No item fits these filters')).toBeVisible();
  expect(new URL(page.url()).searchParams.get('q')).toBe('quince of nowhere');
});

test('a list is taken along as a file, by mouse and by keyboard', async ({ page }) => {
  await page.goto('/outbox?state=done');
  const button = page.getByRole('button', { name: 'These jobs as a file' });
  await button.click();
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'These jobs as CSV' }).click();
  const text = readFileSync(await (await saved).path(), 'utf8');
  expect(text.split('\r\n')[0]).toContain('stock number');
  expect(text.split('\r\n').length).toBeGreaterThan(50);
  // By keyboard; Esc and going elsewhere close it.
  await button.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'These jobs as CSV' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('link', { name: 'These jobs as CSV' })).toHaveCount(0);
  await button.click();
  await page.getByRole('heading', { name: 'Outbox' }).click();
  await expect(page.getByRole('link', { name: 'These jobs as CSV' })).toHaveCount(0);
});

test('what was done to many long ago is found again, by its address and in the list', async ({ page }) => {
  const { id } = await readyItem({}, 3);
  const [word, shop] = [`long-ago-${Date.now().toString(36)}`, await accountOf('Shopfront')];
  const { body } = await publishItems([id], [shop]);
  await comesTo(id, shop, 'live');
  // Thirty runs stand in the list at first.
  for (let time = 0; time < 31; time++)
    await call('POST', '/edits', {
      selection: { kind: 'items', ids: [id] },
      steps: [{ field: 'notes', do: { verb: 'set', value: `${word} ${time}` } }],
      send: false,
    });
  await page.goto(`/outbox?run=${body.runId}`);
  await expect(page.getByText('1 of 1 done')).toBeVisible();
  const runs = page.getByRole('region', { name: 'Runs' });
  const first = runs.getByRole('listitem').filter({ hasText: `${word} 0` });
  await expect(runs.getByRole('listitem').first()).toBeVisible();
  await expect(first).toHaveCount(0);
  await runs.getByRole('button', { name: 'Show earlier ones' }).click();
  await expect(first).toBeVisible();
});

test('listings of many are ended on the accounts that are ticked, and listed again from the outbox', async ({
  page,
}) => {
  const word = `ending${Date.now().toString(36)}`;
  const items = [await readyItem({ title: `${word} one` }), await readyItem({ title: `${word} two` })];
  const ids = items.map((one) => one.id);
  const [oakhand, pippet] = [await accountOf('Oakhand'), await accountOf('Pippet')];
  await publishItems(ids, [oakhand, pippet]);
  for (const id of ids) for (const place of [oakhand, pippet]) await comesTo(id, place, 'live');
  await page.goto(`/?q=${word}`);
  const grid = page.getByRole('grid', { name: 'Inventory' });
  await expect(grid.getByRole('row')).toHaveCount(3);
  await grid.focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('toolbar', { name: 'Chosen items' }).getByRole('button', { name: 'End', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'End listings' });
  await expect(dialog.getByRole('button', { name: 'End 4 listings' })).toBeEnabled();
  await dialog.getByRole('checkbox', { name: /^Pippet/ }).uncheck();
  await dialog.getByRole('button', { name: 'End 2 listings' }).click();
  await dialog.getByRole('link', { name: 'Watch it in the outbox' }).click();
  for (const id of ids) {
    await comesTo(id, oakhand, 'ended');
    await comesTo(id, pippet, 'live');
  }
  page.on('dialog', (one) => void one.accept());
  const again = page.getByRole('region', { name: 'Runs' }).getByRole('button', { name: 'List them again' }).first();
  await again.click();
  for (const id of ids) await comesTo(id, oakhand, 'live');
});

test('what lacks the same is changed for all of them at once, from the plan of publishing', async ({ page }) => {
  const items = [await readyItem({ description: '' }), await readyItem({ description: '' })];
  const lotbarn = await accountOf('Swishel');
  await page.goto(`/publish?ids=${items.map((one) => one.id).join(',')}&accounts=${lotbarn}`);
  const missing = page.getByRole('region', { name: 'What is missing' });
  const cause = missing.getByRole('listitem').filter({ has: page.getByText('2', { exact: true }) });
  await cause.first().getByRole('link', { name: 'Change all 2 on the workbench' }).click();
  await expect(page).toHaveURL(/workbench\?ids=/);
  expect(new URL(page.url()).searchParams.get('ids')?.split(',').map(Number).sort()).toEqual(
    items.map((one) => one.id).sort(),
  );
});

test('an answer that got lost: pressed again, three units are added once', async ({ page }) => {
  const item = await readyItem({}, 2);
  await page.goto(`/items/${item.id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await page.keyboard.press('Alt+l');
  const ledger = page.getByRole('dialog', { name: `Stock of ${item.sku}` });
  await expect(ledger.getByRole('textbox', { name: 'Units' })).toBeFocused();
  await page.keyboard.type('3');
  // Carried out, and the answer does not come through.
  let lost = 0;
  await page.route(`**/items/${item.id}/stock`, async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.continue();
    lost++;
    await route.fetch();
    await route.abort();
  });
  const add = ledger.getByRole('button', { name: /^Add 3 to stock/ });
  await add.click();
  await expect(page.getByText(/Netting cannot be reached/).first()).toBeVisible();
  expect((await sheet(item.id)).item.quantity).toBe(5);
  await add.click();
  await expect(ledger.getByRole('row').nth(1)).toContainText('+3');
  await expect(page.getByText(/Netting cannot be reached/)).toHaveCount(0);
  expect(lost).toBe(1);
  expect((await sheet(item.id)).item.quantity).toBe(5);
});

test('what is behind a figure of Insights is changed on the workbench', async ({ page }) => {
  const { body } = await call<{ ids: number[]; count: number }>('GET', '/insights/items?of=here');
  expect(body.ids).toHaveLength(Math.min(body.count, 10_000));
  await page.goto('/insights?view=stock');
  await page
    .getByTitle(/: show the items behind it/)
    .first()
    .click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('link', { name: 'Change them on the workbench' }).click();
  await expect(page.getByRole('heading', { name: 'Workbench' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'In common' })).toBeVisible();
});

test('what is forgotten comes back by a press, as it was', async ({ page }) => {
  const name = `Kept ${Date.now().toString(36)}`;
  await call('POST', '/routines', {
    name,
    filter: { field: 'brand', op: 'is', value: 'Brask' },
    steps: [{ field: 'keywords', do: { verb: 'add-to', entries: ['spring'] } }],
    send: false,
  });
  await page.goto('/routines');
  const card = page.getByRole('article', { name });
  await card.getByRole('button', { name: 'Forget it' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(card).toBeVisible();
  await expect(card).toContainText('spring');
  await card.getByRole('button', { name: 'Forget it' }).click();
  await expect(card).toHaveCount(0);
  // And later, whoever looks for it.
  await page.reload();
  await page.getByText(/^Removed lately/).click();
  await page.getByRole('button', { name: `Bring ${name} back` }).click();
  await expect(card).toContainText('spring');
  await card.getByRole('button', { name: 'Forget it' }).click();
  await expect(card).toHaveCount(0);

  const box = { name, lengthMm: 310, widthMm: 220, heightMm: 140, grams: 190, cost: 85 };
  await call('POST', '/boxes', box);
  await page.goto('/postage');
  const row = page.getByRole('listitem').filter({ hasText: name });
  await row.getByRole('button', { name: /^Remove/ }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(row).toBeVisible();
  const { boxes } = (await call<{ boxes: Record<string, unknown>[] }>('GET', '/boxes')).body;
  const again = boxes.find((one) => one.name === name);
  expect(again).toMatchObject(box);
  await call('DELETE', `/boxes/${again?.id}`);
});

test('a template that is removed comes back: at once by a press, and later from what was removed lately', async ({
  page,
}) => {
  const name = `Thrown away ${Date.now().toString(36)}`;
  const { body } = await call<{ id: number }>('POST', '/templates', {
    name,
    accounts: [await accountOf('Lanesend')],
    conditions: [{ field: 'location', op: 'is', value: name }],
    fields: { footer: 'Ask for {{ stock_number }}.' },
  });
  await page.goto(`/templates?template=${body.id}`);
  const among = page.getByRole('navigation', { name: 'Templates' }).getByRole('button', { name });
  const remove = page.getByRole('button', { name: 'Remove', exact: true });
  await remove.click();
  await expect(among).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(among).toBeVisible();
  await among.click();
  await remove.click();
  await expect(among).toHaveCount(0);
  await page.reload();
  await page.getByText(/^Removed lately/).click();
  await page.getByRole('button', { name: `Bring ${name} back` }).click();
  await expect(among).toBeVisible();
  await among.click();
  const line = page.getByLabel('Line under the description');
  await expect(line).toHaveValue('Ask for {{ stock_number }}.');
  // So does what it said before it was changed.
  await line.fill('Ask for anything.');
  await page.getByRole('button', { name: 'Keep the template' }).click();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(line).toHaveValue('Ask for {{ stock_number }}.');
  await page.reload();
  await expect(line).toHaveValue('Ask for {{ stock_number }}.');
  await call('DELETE', `/templates/${body.id}`);
});

test('what is kept for an account and for the shop is taken back, and the page shows it', async ({ page }) => {
  type Account = { id: number; reserve: number; footer: string; renewal: { mostPerDay: number } };
  const shop = await accountOf('Pippet');
  const account = async () =>
    (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts.find((one) => one.id === shop);
  const before = await account();
  const takeBack = async (said: string | RegExp) => {
    const notice = page.getByRole('status').filter({ hasText: said });
    await notice.getByRole('button', { name: 'Take it back' }).click();
  };
  await page.goto(`/marketplaces/${shop}`);
  const reserve = page.getByLabel('Units kept back');
  await reserve.fill(String((before?.reserve ?? 0) + 3));
  await page.getByRole('button', { name: 'Keep the pace' }).click();
  await takeBack('The pace of Pippet is kept');
  await expect(reserve).toHaveValue(String(before?.reserve));
  const footer = page.getByLabel('Line under every description');
  await footer.fill('Ask for anything.');
  await page.getByRole('button', { name: 'Keep prices and wording' }).click();
  await takeBack('Pippet is saved');
  await expect(footer).toHaveValue(before?.footer ?? '');
  expect(await account()).toMatchObject({ reserve: before?.reserve, footer: before?.footer });

  const packing = async () => (await call<{ packaging: unknown; packingMinutes: number }>('GET', '/settings')).body;
  const kept = await packing();
  await page.goto('/settings#packing');
  const minutes = page.getByLabel('Takes, minutes');
  await minutes.fill(String(kept.packingMinutes + 7));
  await page.getByRole('button', { name: 'Keep the packing' }).click();
  await takeBack(/^Kept; weights/);
  await expect(minutes).toHaveValue(String(kept.packingMinutes));
  expect(await packing()).toMatchObject(kept);
});

test('a size of label of one’s own is made, removed, and comes back', async ({ page }) => {
  const name = `Own ${Date.now().toString(36)}`;
  const named = async () =>
    Object.values(
      (await call<{ labelSizes: Record<string, { name: string }> }>('GET', '/settings')).body.labelSizes,
    ).filter((one) => one.name === name).length;
  await page.goto('/labels');
  await page.getByRole('button', { name: 'Add a size of your own' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Keep this size' }).click();
  const size = page.getByRole('combobox', { name: 'Size' });
  await expect(size.locator('option:checked')).toHaveText(name);
  await page.getByRole('button', { name: 'Remove this one' }).click();
  await expect(page.getByText(`${name} is removed`)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove this one' })).toHaveCount(0);
  expect(await named()).toBe(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(size.locator('option:checked')).toHaveText(name);
  expect(await named()).toBe(1);
  await page.getByRole('button', { name: 'Remove this one' }).click();
  await expect(page.getByRole('button', { name: 'Remove this one' })).toHaveCount(0);
});
