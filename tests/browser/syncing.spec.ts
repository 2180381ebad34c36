import { expect, test } from '@playwright/test';
import { publishItems, readyItem, sheet, stateOn } from '../support/items';
import { accountOf, call, control, marketListings, until } from '../support/stack';
import { signedIn } from './steps';

test.describe.configure({ timeout: 600_000 });
test.beforeEach(({ page }) => signedIn(page));

const liveOn = (id: number, account: number) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    120_000,
  );

test('fifty items to six marketplaces: sent while the page is left, all told when one comes back', async ({ page }) => {
  const names = ['Hallowick', 'Oakhand', 'Shopfront', 'Pippet', 'Swishel', 'Selasar'];
  const accounts = await Promise.all(names.map(accountOf));
  const items: { id: number; sku: string }[] = [];
  for (let portion = 0; portion < 10; portion++)
    items.push(
      ...(await Promise.all(
        Array.from({ length: 5 }, () => readyItem({ lengthMm: 200, widthMm: 150, heightMm: 120 })),
      )),
    );
  await page.goto(`/publish?ids=${items.map((one) => one.id).join(',')}&accounts=${accounts.join(',')}`);
  await page.getByRole('button', { name: 'Send 300 listings' }).click();
  await expect(page).toHaveURL(/outbox\?run=/);
  const outbox = page.url();
  await page.goto('/settings');
  await expect(page.getByRole('heading', { name: 'Settings' })).toBeVisible();
  await page.goto('about:blank');
  await until(
    async () =>
      (await marketListings('hallowick')).filter((one) => items.some((item) => item.sku === one.summary.reference)),
    (there) => there.length === 50,
    240_000,
  );
  await page.goto(outbox);
  await expect(page.getByText('300 of 300 done')).toBeVisible({ timeout: 240_000 });
  const there = await marketListings('swishel');
  for (const { sku } of items) expect(there.filter((one) => one.summary.reference === sku)).toHaveLength(1);
});

test('changed on both sides: shown side by side, and resolved by hand', async ({ page }) => {
  const item = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await publishItems([item.id], [oakhand]);
  await liveOn(item.id, oakhand);
  const [there] = await marketListings('oakhand', item.sku);
  await control('oakhand', 'change', { listing: there?.id, set: { name: 'What they wrote' } });
  const { version } = (await sheet(item.id)).item;
  await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { title: 'What we wrote' } });
  await page.goto('/differences');
  const row = page.getByRole('listitem').filter({ hasText: item.sku });
  await expect(row.getByText('both changed')).toBeVisible();
  await expect(row.getByText('What they wrote')).toBeVisible();
  await expect(row.getByText('What we wrote').first()).toBeVisible();
  await row.getByRole('button', { name: /^Put our title/ }).click();
  await expect(row).toHaveCount(0);
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.title === 'What we wrote',
  );
});

test('an account that is locked is named at the foot of the page, waits, and goes on by itself', async ({ page }) => {
  const item = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await control('oakhand', 'lock', { seller: 'grainhouse', minutes: 0.7 });
  await page.goto(`/publish?ids=${item.id}&accounts=${oakhand}`);
  await page.getByRole('button', { name: 'Send 1 listing' }).click();
  const dock = page.getByRole('region', { name: 'Outbox', exact: true });
  await expect(dock.getByText('Oakhand is locked for a while')).toBeVisible();
  await expect(page.getByText('1 of 1 done')).toBeVisible({ timeout: 200_000 });
  await expect(dock.getByText('Oakhand is locked for a while')).toHaveCount(0);
  expect(await marketListings('oakhand', item.sku)).toHaveLength(1);
});

test('renewal: what it costs is said first, an open offer blocks one, the other is made anew', async ({ page }) => {
  const [free, blocked] = [await readyItem(), await readyItem()];
  const pippet = await accountOf('Pippet');
  await publishItems([free.id, blocked.id], [pippet]);
  for (const { id } of [free, blocked]) await liveOn(id, pippet);
  await page.goto(`/renewals?account=${pippet}&order=newest`);
  for (const { sku } of [free, blocked]) await page.getByRole('checkbox', { name: `Choose ${sku} on Pippet` }).check();
  await expect(page.getByRole('region', { name: 'What follows' })).toContainText('2 end and are made anew');
  // A buyer bids in the meantime.
  const [bid] = await marketListings('pippet', blocked.sku);
  await control('pippet', 'offer', { listing: bid?.id, amount: 9_000 });
  await page.getByRole('button', { name: 'Renew 2 listings' }).click();
  await expect(page.getByText('2 of 2 done')).toBeVisible();
  await expect(page.getByText('1 failed')).toBeVisible();
  await expect(
    page
      .getByText(/1 open offer there, so it is not ended/)
      .filter({ visible: true })
      .first(),
  ).toBeVisible();
  await page.goto(`/renewals?account=${pippet}&order=newest`);
  const row = (sku: string) =>
    page.getByRole('row').filter({ has: page.getByRole('checkbox', { name: `Choose ${sku} on Pippet` }) });
  await expect(row(free.sku)).toContainText('done');
  await expect(row(blocked.sku)).toContainText('failed');
  expect((await marketListings('pippet', blocked.sku)).map((one) => one.state)).toEqual(['live']);
  expect((await marketListings('pippet', free.sku)).map((one) => one.state).sort()).toEqual(['ended', 'live']);
});

test('stock moves in the ledger: adding and setting say what results; sold by hand lowers it everywhere', async ({
  page,
}) => {
  const item = await readyItem({}, 3);
  const oakhand = await accountOf('Oakhand');
  await publishItems([item.id], [oakhand]);
  await liveOn(item.id, oakhand);
  await page.goto(`/items/${item.id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await page.keyboard.press('Alt+l');
  const ledger = page.getByRole('dialog', { name: `Stock of ${item.sku}` });
  const units = ledger.getByRole('textbox', { name: 'Units' });
  await expect(units).toBeFocused();
  await page.keyboard.type('4');
  await ledger.getByLabel('Why they are added').selectOption('bought');
  await ledger.getByRole('button', { name: 'Add 4 to stock: 3 becomes 7' }).click();
  await expect(ledger.getByRole('row').nth(1)).toContainText('Bought');
  await units.fill('5');
  await ledger.getByRole('button', { name: 'Set stock to 5' }).click();
  await expect(ledger.getByRole('row').nth(1)).toContainText('Counted and set');
  await ledger.getByRole('button', { name: 'Sold 1: 5 becomes 4' }).click();
  await expect(ledger.getByRole('row').nth(1)).toContainText('Sold by hand');
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.quantity === 4,
  );
});

test('a surplus order is shown at once and cancelled in two steps', async ({ page }) => {
  const item = await readyItem();
  const accounts = await Promise.all(['Hallowick', 'Oakhand'].map(accountOf));
  await publishItems([item.id], accounts);
  for (const account of accounts) await liveOn(item.id, account);
  const { title } = (await sheet(item.id)).item;
  await page.goto('/sales?state=oversold');
  const row = page.getByRole('row').filter({ hasText: title });
  await expect(page.getByRole('heading', { name: 'Sales' })).toBeVisible();
  const begun = Date.now();
  await Promise.all(['hallowick', 'oakhand'].map((market) => control(market, 'buy', { reference: item.sku })));
  await expect(row).toHaveCount(1);
  console.log(`  a surplus sale was seen on the open page ${Date.now() - begun} ms after it was bought`);
  await row.getByRole('button', { name: /^Cancel order/ }).click();
  await row.getByRole('button', { name: /for good$/ }).click();
  await expect(row).toHaveCount(0);
  expect((await sheet(item.id)).item.quantity).toBe(0);
});
