import { expect, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { accountOf, call } from '../support/stack';
import { signedIn } from './steps';

const word = `F${Date.now().toString(36)}`;

test('any field is a filter: added, read on its chip, kept in the address, removed again', async ({ page }) => {
  const [found, other] = [
    await readyItem({ supplier: `${word} one`, cost: 1_234 }),
    await readyItem({ supplier: word, cost: 9_999 }),
  ];
  await signedIn(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Filter', exact: true }).click();
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByRole('combobox', { name: 'Field of condition 1' }).selectOption('supplier');
  await page.getByRole('textbox', { name: 'Value of condition 1' }).fill(word);
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByRole('combobox', { name: 'Field of condition 2' }).selectOption('cost');
  await page.getByRole('combobox', { name: 'Comparison of condition 2' }).selectOption('between');
  // What cannot be read is told at its place.
  await page.getByRole('textbox', { name: 'Value of condition 2' }).fill('cheap');
  await expect(page.getByText('This is not an amount')).toBeVisible();
  await page.getByRole('textbox', { name: 'Value of condition 2' }).fill('12 to 12,50');
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await expect(page.getByText(found.sku)).toBeVisible();

  await page.reload();
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Remove filter Cost is between 12.00 and 12.50' }).click();
  await expect(page.getByText('2 items', { exact: true })).toBeVisible();
  await expect(page.getByText(other.sku)).toBeVisible();
  await page.getByRole('button', { name: `Remove filter Supplier begins with ${word}` }).click();
  await expect(page).toHaveURL(/^[^?]*$/);
});

test('filters said the short way, a listing and a nested part are chips of one form; a search is kept and opened', async ({
  page,
}) => {
  const supplier = `${word}-kept`;
  const there = await readyItem({ supplier, brand: 'Orvane', price: 4_500 });
  await readyItem({ supplier, brand: 'Brask', price: 9_900 });
  await signedIn(page);
  // An address of before: short forms, and a filter of several parts that the editor does not show.
  const where = JSON.stringify({
    any: [
      { field: 'supplier', op: 'is', value: supplier },
      { field: 'supplier', op: 'is', value: 'nobody' },
    ],
  });
  await page.goto(`/?brand=Orvane&priceMin=1000&where=${encodeURIComponent(where)}`);
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  const nested = `Supplier is ${supplier} or Supplier is nobody`;
  await expect(page.getByRole('button', { name: `Remove filter ${nested}` })).toBeVisible();
  await page.getByRole('button', { name: 'Filter', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Value of condition 1' })).toHaveValue('Orvane');
  await expect(page.getByRole('textbox', { name: 'Value of condition 2' })).toHaveValue('10.00 to');
  await page.getByRole('combobox', { name: 'State there' }).selectOption('Draft');
  await page.getByRole('button', { name: 'Remove condition 1' }).click();
  await page.getByRole('group', { name: 'Usual conditions' }).getByRole('button', { name: 'Price' }).click();
  await page.getByRole('textbox', { name: 'Value of condition 2' }).fill('to 50');
  await page.getByRole('button', { name: 'Show' }).click();
  for (const chip of ['Draft', nested, 'Price is at least 10.00', 'Price is at most 50.00'])
    await expect(page.getByRole('button', { name: `Remove filter ${chip}`, exact: true })).toBeVisible();
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await expect(page).toHaveURL(/^[^?]*\?where=[^&]*$/);

  await page.getByRole('button', { name: 'Searches' }).click();
  const name = `${word} under fifty`;
  await page.getByRole('textbox', { name: 'Name of this search' }).fill(name);
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(`Kept as ${name}`)).toBeVisible();
  // The same name again is told at its place, and nothing is overwritten.
  await page.getByRole('textbox', { name: 'Name of this search' }).fill(name);
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(`There is a search called ${name} already`)).toBeVisible();

  await page.goto('/?stage=live&brand=Brask');
  await page.getByRole('button', { name: 'Searches' }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await expect(page.getByText(there.sku)).toBeVisible();
  await page.getByRole('button', { name: 'Searches' }).click();
  await page.getByRole('button', { name: `Forget the search ${name}` }).click();
  await expect(page.getByText(`${name} is forgotten; its items stay`)).toBeVisible();
  await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0);
});

test('what belongs to an account is said on its page and can be taken back', async ({ page }) => {
  const glintfeed = await accountOf('Glintfeed');
  await signedIn(page);
  await page.goto(`/marketplaces/${glintfeed}`);
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByRole('combobox', { name: 'Comparison of condition 1' }).selectOption('not');
  await page.getByRole('textbox', { name: 'Value of condition 1' }).fill(`${word}/films`);
  await page.getByRole('button', { name: 'Keep what belongs here' }).click();
  await expect(page.getByText('Drafts for Glintfeed follow this from now on')).toBeVisible();
  const film = await readyItem({ category: `${word}/films` });
  type Columns = { columns: { accountId: number; leftOut: boolean }[] };
  const { columns } = (await call<Columns>('GET', `/items/${film.id}`)).body;
  expect(columns.find((one) => one.accountId === glintfeed)?.leftOut).toBe(true);

  await page.reload();
  await page.getByRole('button', { name: 'Remove condition 1' }).click();
  await page.getByRole('button', { name: 'Keep what belongs here' }).click();
  await expect(page.getByText('Every new item is meant for Glintfeed')).toBeVisible();
});

test('rows stay where they are when some are chosen, a choice outlives a look at an item, Esc closes what is open', async ({
  page,
}) => {
  const supplier = `${word}-row`;
  for (const title of ['First of three', 'Second of three', 'Third of three'])
    await readyItem({ supplier, title: `${title} ${word}` });
  await signedIn(page);
  const where = JSON.stringify({ all: [{ field: 'supplier', op: 'is', value: supplier }] });
  await page.goto(`/?where=${encodeURIComponent(where)}&sort=created&dir=asc`);
  const first = page.getByRole('gridcell', { name: `First of three ${word}` });
  const before = await first.boundingBox();
  await page.getByRole('grid', { name: 'Inventory' }).getByRole('checkbox').first().check();
  const bar = page.getByRole('toolbar', { name: 'Chosen items' });
  await expect(bar).toContainText('1 chosen');
  expect(await first.boundingBox()).toEqual(before);

  await bar.getByLabel('Choose the first so many').fill('2');
  await page.keyboard.press('Enter');
  await expect(bar).toContainText('2 chosen');
  await first.click();
  await expect(page).toHaveURL(/items/);
  await page.goBack();
  await expect(bar).toContainText('2 chosen');

  // Wherever the focus is: Esc closes the filter, and the choice stays.
  await page.getByRole('button', { name: 'Filter', exact: true }).click();
  const account = page.getByRole('combobox', { name: 'Account', exact: true });
  await expect(account).toBeFocused();
  await page.getByRole('searchbox').focus();
  await page.keyboard.press('Escape');
  await expect(account).toBeHidden();
  await expect(bar).toContainText('2 chosen');

  await page.getByRole('button', { name: 'Filter', exact: true }).click();
  await page.getByLabel('State there').selectOption('Changes not sent');
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByRole('button', { name: 'Remove filter Changes not sent' })).toBeVisible();
  await expect(bar).toBeHidden();
});
