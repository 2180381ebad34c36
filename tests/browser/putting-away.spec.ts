import { expect, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { call } from '../support/stack';
import { signedIn } from './steps';

test('chosen rows are put away, stand in no list, are found by their standing and put back from the sheet', async ({
  page,
}) => {
  const word = `awayside${Date.now().toString(36)}`;
  const items = await Promise.all([readyItem({ title: `${word} one` }), readyItem({ title: `${word} two` })]);
  await signedIn(page);
  await page.goto(`/?q=${word}`);
  const grid = page.getByRole('grid', { name: 'Inventory' });
  await expect(grid.getByRole('row')).toHaveCount(3);
  await grid.focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByLabel('Value')).toHaveValue('archived');
  await page.getByRole('button', { name: 'Save 2 items' }).click();
  await expect(page.getByText(/2 items/).first()).toBeVisible();

  await page.goto(`/?q=${word}`);
  await expect(page.getByText('No item fits these filters')).toBeVisible();
  const where = JSON.stringify({ all: [{ field: 'standing', op: 'is', value: 'archived' }] });
  await page.goto(`/?q=${word}&where=${encodeURIComponent(where)}`);
  await expect(grid.getByRole('row')).toHaveCount(3);

  await page.goto(`/items/${items[0].id}`);
  await expect(page.getByText(/Archived: it stands in no list/)).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(page.getByText(/Archived: it stands in no list/)).toHaveCount(0);
  await page.goto(`/?q=${word}`);
  await expect(grid.getByRole('row')).toHaveCount(2);
});

test('steps change places by dragging; those of a routine are added behind what is written', async ({ page }) => {
  const { id } = await readyItem();
  const name = `Spring words ${Date.now().toString(36)}`;
  await call('POST', '/routines', {
    name,
    filter: { any: [] },
    steps: [{ field: 'keywords', do: { verb: 'add-to', entries: ['spring'] } }],
    send: false,
  });
  await signedIn(page);
  await page.goto(`/workbench?ids=${id}`);
  await page.getByPlaceholder('-5').fill('-5');
  await page.getByRole('button', { name: 'Routines' }).click();
  await page.getByRole('button', { name: `Add the steps of ${name}` }).click();
  await expect(page.getByLabel('Field of step 1')).toHaveValue('price');
  await expect(page.getByLabel('Field of step 2')).toHaveValue('keywords');
  await page.locator('[data-grip="2"]').dragTo(page.getByLabel('Step 1', { exact: true }));
  await expect(page.getByLabel('Field of step 1')).toHaveValue('keywords');
  await expect(page.getByLabel('Field of step 2')).toHaveValue('price');
  await expect(page.getByRole('button', { name: 'Save 1 item', exact: true })).toBeEnabled();
});
