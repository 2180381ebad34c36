import { expect, type Page, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { accountOf, call, until } from '../support/stack';
import { focused } from './hand';
import { saved, signedIn } from './steps';

type Field = { field: string; value: unknown; origin: string };
const fieldOn = async (id: number, account: string, field: string) => {
  const { columns } = (await call<{ columns: { name: string; fields: Field[] }[] }>('GET', `/items/${id}`)).body;
  return columns.find((one) => one.name === account)?.fields.find((one) => one.field === field);
};
const open = async (page: Page, id: number) => {
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toBeVisible();
};
const cell = (page: Page, name: RegExp) => page.getByRole('button', { name });

test('what is typed for one marketplace is saved when the cell is left, by Tab or for another cell', async ({
  page,
}) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await cell(page, /^Title on Hallowick/).click();
  await page.getByRole('textbox', { name: 'Title on Hallowick' }).fill('Left by Tab');
  for (let tabs = 0; tabs < 4 && (await page.getByRole('dialog').count()); tabs++) await page.keyboard.press('Tab');
  await until(
    () => fieldOn(id, 'Hallowick', 'title'),
    (field) => field?.origin === 'override' && field.value === 'Left by Tab',
  );
  await cell(page, /^Title on Oakhand/).click();
  await page.getByRole('textbox', { name: 'Title on Oakhand' }).fill('Left for another cell');
  await cell(page, /^Price on Hallowick/).click();
  await until(
    () => fieldOn(id, 'Oakhand', 'title'),
    (field) => field?.origin === 'override' && field.value === 'Left for another cell',
  );
});

test('a cell that is kept as it was goes on following the item; Escape keeps nothing', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await cell(page, /^Title on Hallowick/).click();
  const editor = page.getByRole('textbox', { name: 'Title on Hallowick' });
  await expect(editor).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(editor).toHaveCount(0);
  await cell(page, /^Title on Hallowick/).click();
  await editor.fill('Not meant');
  await page.keyboard.press('Escape');
  await expect(editor).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('The item’s new title');
  await page.keyboard.press('Tab');
  await saved(page);
  await until(
    () => fieldOn(id, 'Hallowick', 'title'),
    (field) => field?.origin !== 'override' && String(field?.value).startsWith('The item’s new title'),
  );
});

test('what cannot be read stays in its cell with the reason', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await cell(page, /^Price on Hallowick/).click();
  await page.getByRole('textbox', { name: 'Price on Hallowick' }).fill('a lot');
  await cell(page, /^Title on Oakhand/).click();
  await expect(page.getByRole('dialog', { name: 'Price on Hallowick' }).getByRole('alert')).toBeVisible();
  expect((await fieldOn(id, 'Hallowick', 'price'))?.origin).not.toBe('override');
});

test('Alt N leads to a cell in which something is missing, also where the item has no such field', async ({ page }) => {
  const { id } = await readyItem();
  const hallowick = await accountOf('Hallowick');
  // Too long for one marketplace, written for it alone: it can only be mended there.
  await call('PUT', `/items/${id}/listings/${hallowick}`, { field: 'title', value: 'long '.repeat(20).trim() });
  for (const name of [
    'Oakhand',
    'Selasar',
    'Shopfront',
    'Pippet',
    'Pippet finds',
    'Swishel',
    'Lanesend',
    'Glintfeed',
    'Crateway',
    'Lotbarn',
    'Wallfolk',
  ]) {
    const account = await accountOf(name);
    await call('PUT', `/items/${id}/listings/${account}/target`, { here: false });
  }
  await signedIn(page);
  await open(page, id);
  await page.getByRole('textbox', { name: 'Stock number' }).focus();
  await page.keyboard.press('Alt+n');
  await expect.poll(() => focused(page)).toMatch(/^Title on Hallowick/);
});

test('the rows of a category are hidden for the whole shop, and one that is asked for shows itself', async ({
  page,
}) => {
  const category = `cameras/rows-${Date.now().toString(36)}`;
  const { id } = await readyItem({ category });
  await signedIn(page);
  await open(page, id);
  const row = (name: string) => page.getByRole('rowheader', { name, exact: true });
  await page.locator('summary').filter({ hasText: /rows$/ }).click();
  await page.getByRole('checkbox', { name: 'Supplier', exact: true }).uncheck();
  await expect(row('Supplier')).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'Weight', exact: true }).uncheck();
  await expect(row('Weight')).toHaveCount(0);
  // Without a weight it cannot go out: the row is there again.
  const { version } = (await call<{ item: { version: number } }>('GET', `/items/${id}`)).body.item;
  await call('PATCH', `/items/${id}`, { baseVersion: version, patch: { weightGrams: null } });
  await page.reload();
  await expect(row('Weight')).toBeVisible();
  await expect(row('Supplier')).toHaveCount(0);
  // Items of another category have all of them.
  await open(page, (await readyItem()).id);
  await expect(row('Supplier')).toBeVisible();
});

test('a marketplace’s own fields stand folded under its name', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  const fold = page.getByRole('button', { name: /^Only on Hallowick/ });
  const advertising = page.getByRole('rowheader', { name: /^Advertising/ });
  await expect(fold).toHaveAttribute('aria-expanded', 'false');
  await expect(advertising).toHaveCount(0);
  await fold.click();
  await expect(advertising).toBeVisible();
  await page.reload();
  await expect(fold).toHaveAttribute('aria-expanded', 'true');
});

test('history shows amounts and words as people read them, back to the beginning', async ({ page }) => {
  const { id } = await readyItem({ title: 'Brask K-2 camera with a lens' });
  let version = (await call<{ item: { version: number } }>('GET', `/items/${id}`)).body.item.version;
  for (let time = 0; time < 110; time++) {
    const { body } = await call<{ version: number }>('PATCH', `/items/${id}`, {
      baseVersion: version,
      patch: { price: 10_000 + time },
    });
    version = body.version;
  }
  await call('PATCH', `/items/${id}`, { baseVersion: version, patch: { title: 'Brask K-2 camera with two lenses' } });
  await signedIn(page);
  await open(page, id);
  await page.getByRole('button', { name: 'History' }).click();
  const list = page.getByRole('list', { name: 'History' });
  const newest = list.getByRole('listitem').first();
  await expect(newest.locator('del')).toHaveText(['a', 'lens']);
  await expect(newest.locator('ins')).toHaveText(['two', 'lenses']);
  await expect(list.getByText('€101.08 → €101.09')).toBeVisible();
  await expect(list.getByText('recorded the item')).toHaveCount(0);
  await page.getByRole('button', { name: 'Older ones' }).click();
  await expect(list.getByText('recorded the item')).toBeVisible();
  await expect(page.getByText('This is the beginning.')).toBeVisible();
});
