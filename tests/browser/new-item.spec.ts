import { expect, type Route, test } from '@playwright/test';
import { call } from '../support/stack';
import { saved, signedIn, signIn } from './steps';

const newest = async () =>
  (await call<{ items: { id: number; title: string; sku: string }[] }>('GET', '/items?sort=created&dir=desc&limit=3'))
    .body.items;
/** The number that the shop's pattern would give next: looking at it takes none. */
const id = (url: string) => Number(/\/items\/(\d+)$/.exec(url)?.[1]);

test('a key of one letter and a word typed at no field store nothing', async ({ page }) => {
  await signIn(page);
  const [before] = await newest();
  await page.keyboard.press('n');
  await page.waitForURL(/\/items\/new/);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.type('antenna');
  await page.waitForURL(/\/items\/new/);
  await expect(page.getByText('not stored yet')).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
  expect((await newest())[0]?.id).toBe(before?.id);
});

test('the first thing said stores it, once, and one goes on writing where one was', async ({ page }) => {
  await signedIn(page);
  const [before] = await newest();
  await page.goto('/items/new');
  const title = page.getByRole('textbox', { name: 'Title' });
  await expect(title).toBeFocused();
  // Typed at the pace of a hand: the item is stored in the middle of it.
  await page.keyboard.type('A lamp of brass that was stored while it was described', { delay: 25 });
  await page.waitForURL(/\/items\/\d+$/);
  await expect(title).toBeFocused();
  await page.keyboard.type(', with its shade', { delay: 25 });
  await saved(page);
  const stored = (await newest()).filter((one) => one.id > (before?.id ?? 0));
  expect(stored).toHaveLength(1);
  expect(stored[0]?.id).toBe(id(page.url()));
  await expect
    .poll(async () => (await newest())[0]?.title)
    .toBe('A lamp of brass that was stored while it was described, with its shade');
  await page.reload();
  await expect(title).toHaveValue('A lamp of brass that was stored while it was described, with its shade');
  // Another new one is another sheet.
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('n');
  await page.waitForURL(/\/items\/new/);
  await expect(title).toHaveValue('');
});

test('what could not be stored is kept, and stored once, however often it is sent', async ({ page }) => {
  await signedIn(page);
  await page.goto('/items/new');
  await page.route('**/api/v1/items', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
  const said = `A kept lamp ${Date.now()}`;
  await page.keyboard.type(said);
  await expect(page.getByText(/Not connected/)).toBeVisible();
  // The page is left before the connection is back.
  await page.goto('/sales');
  await page.unroute('**/api/v1/items');
  await page.goto('/items/new');
  await expect(page.getByText(/did not see stored/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('');
  expect((await newest()).filter((one) => one.title === said)).toHaveLength(1);
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  expect((await newest()).filter((one) => one.title === said)).toHaveLength(1);
});

test('the same key makes one item, also when both are sent at once', async () => {
  const key = crypto.randomUUID();
  const make = () => call<{ id: number; known?: boolean }>('POST', '/items', { fields: { title: 'Once' }, key });
  const both = await Promise.all([make(), make()]);
  const again = await make();
  expect(new Set([...both, again].map((one) => one.body.id)).size).toBe(1);
  expect(again.body.known).toBe(true);
});

test('what is pressed before the page’s code has come is carried out when it is there, once', async ({ page }) => {
  await signedIn(page);
  const held: Route[] = [];
  let isHeld = true;
  await page.route('**/_next/static/**/*.js', (route) => (isHeld ? void held.push(route) : route.continue()));
  await page.goto('/sales', { waitUntil: 'commit' });
  await page.getByRole('button', { name: 'New item' }).click();
  isHeld = false;
  await Promise.all(held.map((route) => route.continue()));
  await page.waitForURL(/\/items\/new/);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
});
