import { expect, type Page, test } from '@playwright/test';
import { kitOf, lotsIn } from '../support/kits';
import { signedIn } from './steps';

const lots = (page: Page) => page.getByRole('table', { name: 'Lots' });
const cell = (page: Page, row: number, column: string) =>
  lots(page).locator(`input[data-row="${row}"][data-column="${column}"]`);
const total = (page: Page, name: string) => page.getByLabel('Totals').locator('div', { hasText: name }).locator('dd');

test('outfits become lots: joined, priced down the column, in part into stock, the rest kept', async ({ page }) => {
  await signedIn(page);
  await page.goto('/kits');
  await page.getByRole('button', { name: 'Take sets apart' }).click();
  const begin = page.getByRole('dialog', { name: 'Take sets apart' });
  const name = `Outfits ${Date.now()}`;
  await begin.getByLabel('Name').fill(name);
  await begin.getByLabel('What all of them cost').fill('90.00');
  await begin.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  const id = Number(/\/kits\/(\d+)/.exec(page.url())?.[1]);

  // Three of an outfit with its spares, then more of its parts from a list of one's own.
  await page.getByRole('button', { name: 'Add contents' }).first().click();
  const add = page.getByRole('dialog', { name: 'Add contents' });
  await add.getByLabel('Number of the set there').fill('LB9001');
  await add.getByLabel('How many sets').fill('3');
  await add.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(add.getByRole('alert')).toContainText('it is no set');
  await add.getByLabel('Number of the set there').fill('LB4032');
  await add.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(add).toHaveCount(0);
  await expect(lots(page).getByRole('row').nth(5)).toBeVisible();
  const before = await lotsIn(id);
  expect(before.length).toBeGreaterThan(45);
  await expect(total(page, 'Lots')).toHaveText(String(before.length));
  await expect(total(page, 'Without a price')).toHaveText(String(before.length));

  await page.getByRole('button', { name: 'Add contents' }).click();
  await add.getByText('Written').click();
  await add.getByLabel('One thing a line').fill('2 x enlarger lamp\nabout ten x peg');
  await add.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(add.getByRole('alert')).toContainText('Line 2, “about ten x peg”');
  await add.getByLabel('One thing a line').fill('2 x enlarger lamp\nenlarger lamp (spare)');
  await add.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('3 pieces, 1 new lot, equal lines joined in 1 lot')).toBeVisible();
  await expect(total(page, 'Lots')).toHaveText(String(before.length + 1));

  // Down the column by keyboard alone.
  await cell(page, 0, 'price').focus();
  for (let row = 0; row < 12; row++) {
    await expect(cell(page, row, 'price')).toBeFocused();
    await page.keyboard.type(`${row + 3}.50`);
    await page.keyboard.press('Enter');
  }
  await expect(cell(page, 12, 'price')).toBeFocused();
  await page.keyboard.type('cheap');
  await page.keyboard.press('Enter');
  await expect(lots(page).getByRole('alert')).toHaveText('No amount; write it as in 1.50');
  await cell(page, 12, 'price').focus();
  await page.keyboard.press('Escape');
  await expect(lots(page).getByRole('alert')).toHaveCount(0);
  await cell(page, 0, 'place').focus();
  for (let row = 0; row < 3; row++) {
    await page.keyboard.type(`A${row + 1}`);
    await page.keyboard.press('Enter');
  }
  await expect(total(page, 'Ready')).toHaveText('12');
  await lots(page)
    .getByLabel(/^State of/)
    .nth(11)
    .selectOption('kept for later');
  await expect(total(page, 'Ready')).toHaveText('11');

  // The last of many, reached by scrolling.
  await cell(page, 0, 'place').focus();
  await lots(page)
    .locator('..')
    .evaluate((box) => box.scrollTo(0, box.scrollHeight));
  const last = before.length;
  await expect(cell(page, last, 'pieces')).toHaveValue('3');
  await lots(page)
    .getByRole('button', { name: /Enlarger lamp|enlarger lamp/ })
    .click();
  await expect(total(page, 'Lots')).toHaveText(String(before.length + 2));

  await page.getByRole('button', { name: 'Put 11 into stock' }).click();
  await expect(page.getByText('11 lots are in stock now')).toBeVisible();
  await expect(total(page, 'In stock')).toHaveText('11');
  await lots(page)
    .locator('..')
    .evaluate((box) => box.scrollTo(0, 0));
  await lots(page).getByRole('link').first().click();
  await expect(page.getByRole('textbox', { name: 'Title' }).first()).toHaveValue(before[0]?.name ?? '');

  // Another day, on another machine: the rest is as it was left.
  await page.goto('/kits');
  await page.getByRole('link', { name }).click();
  await expect(total(page, 'In stock')).toHaveText('11');
  const { totals } = await kitOf(id);
  expect(totals).toMatchObject({ later: 1, ready: 0, done: 11 });
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Add contents' })).toBeDisabled();
});
