import { expect, test } from '@playwright/test';
import { readyItem, sheet } from '../support/items';
import { until } from '../support/stack';
import { signedIn } from './steps';

const word = `Cell${Date.now().toString(36)}`;

test('cells of the inventory by hand: typed, filled down, a block pasted, taken back', async ({ page, context }) => {
  const made: { id: number; sku: string }[] = [];
  for (const n of [1, 2, 3]) made.push(await readyItem({ supplier: word, location: `A${n}`, price: n * 1_000 }));
  const now = async () =>
    (await Promise.all(made.map(({ id }) => sheet(id)))).map(({ item }) => [item.location, item.price]);
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await signedIn(page);
  const where = JSON.stringify({ all: [{ field: 'supplier', op: 'is', value: word }] });
  await page.goto(`/?where=${encodeURIComponent(where)}&sort=created&dir=asc`);
  const grid = page.getByRole('grid', { name: 'Inventory' });
  const cell = (row: number, text: string) =>
    grid.getByRole('row').nth(row).getByRole('gridcell', { name: text, exact: true });

  // A number typed onto a price begins anew; Esc leaves it as it was.
  await cell(1, '€10.00').click();
  await page.keyboard.type('15,5');
  await page.keyboard.press('Escape');
  await expect(cell(1, '€10.00')).toBeVisible();
  await page.keyboard.type('15,5');
  await page.keyboard.press('Enter');
  await expect(cell(1, '€15.50')).toBeVisible();
  // What cannot be read is said at its place.
  await page.keyboard.press('Enter');
  await page.keyboard.type('dear');
  await page.keyboard.press('Enter');
  await expect(page.getByText('This is not an amount')).toBeVisible();
  await page.keyboard.press('Escape');

  // From the first price down over all three.
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await until(now, (rows) => rows.every(([, price]) => price === 1_550));
  await expect(cell(3, '€15.50')).toBeVisible();

  // A block as a spreadsheet gives it: place, stock, price.
  await cell(2, 'A2').click();
  await page.evaluate(() => navigator.clipboard.writeText('K7\t3\t22\nK8\t4\t33'));
  await page.keyboard.press('Control+v');
  await until(now, (rows) => rows.join() === 'A1,1550,K7,2200,K8,3300');
  await expect(cell(3, 'K8')).toBeVisible();

  // Step by step back to where it began.
  await page.keyboard.press('Control+z');
  await expect(cell(2, 'A2')).toBeVisible();
  await page.keyboard.press('Control+z');
  await until(now, (rows) => rows.map(([, price]) => price).join() === '1550,2000,3000');
  await page.keyboard.press('Control+z');
  await until(now, (rows) => rows.map(([, price]) => price).join() === '1000,2000,3000');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Nothing was typed here that could be taken back')).toBeVisible();
});
