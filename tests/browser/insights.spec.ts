import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { signedIn } from './steps';

test('what was sold adds up, is narrowed, opens what is behind it, and is a file', async ({ page }) => {
  await signedIn(page);
  await page.goto('/');
  await page.keyboard.press('Control+k');
  await expect(page.getByPlaceholder('Where to?')).toBeFocused();
  await page.keyboard.type('Insights');
  await expect(page.getByRole('option', { name: /^Insights/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Insights', exact: true })).toBeVisible();
  await page.getByRole('button', { name: '18 months' }).click();
  await expect(page.getByRole('button', { name: '18 months' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Compared with').selectOption('a year ago');
  const totals = page.getByRole('region', { name: 'In all' });
  await expect(totals.getByRole('row')).toHaveCount(3);
  const cell = async (column: number) => {
    const text = await totals.getByRole('row').nth(1).locator('th, td').nth(column).textContent();
    return Math.round(Number((text ?? '').replace(/[^\d.]/g, '')) * 100);
  };
  const [taken, fees, postage, packing, cost, net] = await Promise.all([2, 3, 4, 5, 6, 7].map(cell));
  expect(taken).toBeGreaterThan(5_000_000);
  expect((taken ?? 0) - (fees ?? 0) - (postage ?? 0) - (packing ?? 0) - (cost ?? 0)).toBe(net);

  // One account, cameras alone.
  await page.getByLabel('Account', { exact: true }).selectOption('Shopfront');
  await page.getByRole('button', { name: 'Only some items' }).click();
  const narrow = page.getByRole('dialog', { name: 'Only some items' });
  await narrow.getByRole('button', { name: 'Add a condition' }).click();
  await narrow.getByLabel('Value of condition 1').fill('cameras');
  await narrow.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByText('Category begins with cameras')).toBeVisible();
  await expect.poll(() => cell(2)).toBeLessThan(taken ?? 0);
  const accounts = page.getByRole('region', { name: 'By account' });
  await expect(accounts.getByRole('row')).toHaveCount(2);
  await accounts.getByRole('button', { name: 'Shopfront' }).click();
  const behind = page.getByRole('dialog', { name: 'By account: Shopfront' });
  await expect(behind.getByText(/^\d+ items/)).toBeVisible();
  await expect(behind.getByRole('link', { name: /camera/ }).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(behind).toBeHidden();

  await accounts.getByRole('button', { name: 'By account as a file' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    accounts.getByRole('link', { name: 'By account as CSV' }).click(),
  ]);
  const text = await readFile((await file.path()) ?? '', 'utf8');
  expect(text.split(/\r?\n/)[1]).toMatch(/^Shopfront,\d+,/);
  // The address says it all: whoever gets it sees the same.
  await page.reload();
  await expect(page.getByText('Category begins with cameras')).toBeVisible();
  await expect(accounts.getByRole('row')).toHaveCount(2);
  await page.getByRole('button', { name: 'All items' }).click();
  await expect(page.getByText('Category begins with cameras')).toBeHidden();
});

test('the other views: stock by age, how fast things go, best and worst, what it brought; a period the wrong way round', async ({
  page,
}) => {
  await signedIn(page);
  await page.goto('/insights');
  await page.getByRole('button', { name: '18 months' }).click();
  await page.getByRole('button', { name: 'Stock', exact: true }).click();
  const ages = page.getByRole('region', { name: 'Age of the stock' });
  await ages.getByRole('button', { name: 'More than a year' }).click();
  await expect(page.getByRole('dialog').getByRole('columnheader', { name: 'Paid' })).toBeVisible();
  await page.getByRole('link', { name: 'Open in the inventory' }).click();
  await expect(page).toHaveURL(/where=/);
  await page.goBack();
  await page.getByRole('button', { name: 'How fast' }).click();
  await expect(page.getByRole('img', { name: /Share not sold yet by days/ })).toBeVisible();
  await page.getByLabel('Grouped by').selectOption('price');
  await expect(page.getByRole('button', { name: '€50.00 to €100.00' })).toBeVisible();
  await page.getByRole('button', { name: 'Best and worst' }).click();
  await page.getByLabel('Grouped by').selectOption('brand');
  await expect(page.getByRole('button', { name: 'Brask' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'What it brought' }).click();
  await expect(page.getByRole('rowheader', { name: 'The first price cut' })).toBeVisible();
  await page.getByLabel('First day').fill('2026-06-02');
  await page.getByLabel('Last day').fill('2026-06-01');
  await expect(page.getByText('The last day lies before the first.')).toBeVisible();
});
