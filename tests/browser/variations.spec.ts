import { expect, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { call, until } from '../support/stack';
import { saved, signedIn } from './steps';

type Row = { values: string[]; on: boolean; sku: string; quantity: number; price: unknown };
const rowsOf = async (id: number) =>
  (await call<{ item: { variations: Row[]; quantity: number } }>('GET', `/items/${id}`)).body.item;

test('three axes of 3 × 8 × 4: ninety-six rows, filled by column, row and block', async ({ page, context }) => {
  // Stock numbers are given once: a run's own are not those of another.
  const run = `Q${Date.now().toString(36)}`.toUpperCase();
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const { id } = await readyItem({}, 2);
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await page.keyboard.press('Alt+v');
  const axis = async (name: string, values: string) => {
    await page.getByLabel('Name of a new axis').fill(name);
    await page.keyboard.press('Enter');
    await page.getByRole('textbox', { name: `Values of ${name}, separated by commas` }).fill(values);
  };
  await axis('Colour', 'black,tan,brown,');
  await expect(page.getByText(/2 in stock stand at the first combination/)).toBeVisible();
  await axis('Length', '90,95,100,105,110,115,120,130,');
  await axis('Buckle', 'brass,steel,black,none,');
  const grid = page.getByRole('grid', { name: 'Combinations' });
  await expect(grid.getByRole('row')).toHaveCount(97);
  await until(
    () => rowsOf(id),
    (item) => item.variations.length === 96 && item.quantity === 2,
  );

  // A whole column at once: five of each.
  await grid.getByRole('columnheader', { name: 'Stock', exact: true }).click();
  await page.evaluate(() => navigator.clipboard.writeText('5'));
  await page.keyboard.press('Control+v');
  await until(
    () => rowsOf(id),
    (item) => item.quantity === 480,
  );
  // A block from a spreadsheet, at the place of the cursor.
  await grid.locator('[data-at="4/1"]').click();
  await page.evaluate((text) => navigator.clipboard.writeText(text), `${run}-100\t7\t+2.50\n${run}-101\t8\t19,90\n`);
  await page.keyboard.press('Control+v');
  await expect(page.getByText('6 cells written', { exact: true })).toBeVisible();
  // Stock numbers filled down count on.
  await page.keyboard.press('ArrowDown');
  for (let down = 0; down < 3; down++) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  // A row switched off, a cell typed over, and what cannot be read is said.
  await grid.locator('[data-at="0/0"]').click();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('many');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Row 1, Stock: A whole number from 0 up')).toBeVisible();
  await page.keyboard.press('Escape');
  await saved(page);
  const item = await until(
    () => rowsOf(id),
    (seen) => seen.variations[8]?.sku !== '' && seen.variations[0]?.on === false,
  );
  expect(item.variations.slice(4, 9).map((row) => row.sku)).toEqual(
    [100, 101, 102, 103, 104].map((number) => `${run}-${number}`),
  );
  expect(item.variations[4]).toMatchObject({ quantity: 7, price: { kind: 'difference', amount: 250 } });
  expect(item.variations[5]).toMatchObject({ quantity: 8, price: { kind: 'own', amount: 1_990 } });
  expect(item.quantity).toBe(480 + 2 + 3 - 5);

  // Taken back step by step.
  await grid.focus();
  await page.keyboard.press('Control+z');
  await until(
    () => rowsOf(id),
    (seen) => seen.variations[0]?.on === true,
  );

  // Three axes are too many for some; there it can be left out.
  const troubled = page.getByRole('region', { name: 'Marketplaces that cannot take them' });
  await expect(troubled.getByText('At most 2 axes are taken here, there are 3').first()).toBeVisible();
  await troubled.getByRole('button', { name: /^Leave out all/ }).click();
  await expect(troubled).toHaveCount(0);
});

test('what one marketplace gets of the combinations is chosen in its column', async ({ page }) => {
  const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
  const variations = ['Black', 'Tan'].map((value, index) => ({
    values: [value],
    on: true,
    sku: '',
    quantity: 2 + index,
    price: null,
    barcode: '',
  }));
  const { id } = await readyItem({ axes, variations });
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await page
    .getByRole('button', { name: /^Variations on Pippet:/ })
    .first()
    .click();
  const dialog = page.getByRole('dialog', { name: 'Variations on Pippet' });
  await expect(dialog.getByText('Variations are not taken here, and there are 2 of them')).toBeVisible();
  await dialog.getByLabel('Colour').selectOption('Tan');
  await dialog.getByRole('button', { name: 'Keep for Pippet' }).click();
  await expect(page.getByRole('columnheader', { name: 'Pippet', exact: false }).first()).toContainText('ready');
});

test('a value that is corrected keeps its rows, and one value typed into a chosen block fills it', async ({ page }) => {
  const { id } = await readyItem({
    axes: [{ name: 'Colour', values: ['Blck', 'Tan', 'Red'] }],
    variations: ['Blck', 'Tan', 'Red'].map((value, at) => ({
      values: [value],
      on: true,
      sku: '',
      quantity: at + 1,
      price: null,
      barcode: '',
    })),
  });
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toBeVisible();
  await page.keyboard.press('Alt+v');
  await page.getByRole('button', { name: 'Write Blck otherwise' }).dblclick();
  await page.getByRole('textbox', { name: 'Blck is written' }).fill('Black');
  await page.keyboard.press('Enter');
  const renamed = await until(
    () => rowsOf(id),
    (seen) => seen.variations[0]?.values[0] === 'Black',
  );
  expect(renamed.variations.map((row) => row.quantity)).toEqual([1, 2, 3]);
  // Three stock cells chosen, one number typed.
  const grid = page.getByRole('grid', { name: 'Combinations' });
  await grid.locator('[data-at="0/2"]').click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  const filled = await until(
    () => rowsOf(id),
    (seen) => seen.variations.every((row) => row.quantity === 6),
  );
  expect(filled.quantity).toBe(18);
});
