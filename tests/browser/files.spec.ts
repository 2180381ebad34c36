import { readFileSync, writeFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { readyItem, sheet } from '../support/items';
import { signedIn } from './steps';

const word = `F${Date.now().toString(36)}`;
const found = `/?where=${encodeURIComponent(JSON.stringify({ all: [{ field: 'supplier', op: 'is', value: word }] }))}`;

async function download(page: Page, start: () => Promise<void>): Promise<string> {
  const saved = page.waitForEvent('download');
  await start();
  return readFileSync(await (await saved).path(), 'utf8');
}
async function readIn(page: Page, path: string, text: string): Promise<void> {
  writeFileSync(path, text);
  await page.goto('/files');
  await page.getByLabel('A file to read in').setInputFiles(path);
  await page.getByRole('button', { name: 'Compare with the inventory' }).click();
  await expect(page.getByRole('tab', { name: /^Changes/ })).toBeVisible();
}

test('written out, a part changed in the file, two rows broken: seen before, saved, the report mended and read in again', async ({
  page,
}, info) => {
  const items: { id: number; sku: string }[] = [];
  for (let at = 0; at < 20; at++) items.push(await readyItem({ supplier: word, price: 5_000, location: `L${at}` }));
  const price = async (at: number) => (await sheet(items[at]?.id ?? 0)).item.price;
  await signedIn(page);
  await page.goto(found);
  await expect(page.getByText('20 items', { exact: true })).toBeVisible();
  await page.getByRole('grid', { name: 'Inventory' }).focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('toolbar', { name: 'Chosen items' }).getByRole('button', { name: 'Write out' }).click();
  const out = page.getByRole('region', { name: 'Write out' });
  // Fewer columns, one of an account, kept under a name.
  for (const name of ['Description', 'Keywords', 'Category', 'Model'])
    await out.getByRole('button', { name: `Without ${name}`, exact: true }).click();
  await out.getByLabel('Find a column').fill('title · hallow');
  await out.getByRole('list', { name: 'Columns there are' }).getByRole('button', { name: 'Title · Hallowick' }).click();
  await out.getByLabel('Keep these as').fill(`${word} columns`);
  await out.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(`“${word} columns” is kept`)).toBeVisible();
  await out.getByRole('button', { name: 'Write out', exact: true }).click();
  await expect(page.getByText('20 items written out')).toBeVisible();
  // The next file begins with the columns of the last one.
  await page.reload();
  await expect(out.getByRole('button', { name: 'Without Title · Hallowick', exact: true })).toBeVisible();
  await expect(out.getByRole('button', { name: 'Without Description', exact: true })).toHaveCount(0);
  const csv = await download(page, () =>
    out
      .getByRole('link', { name: / as CSV$/ })
      .first()
      .click(),
  );
  const lines = csv.trimEnd().split('\r\n');
  const [head = ''] = lines;
  expect(head).toContain('Title · Hallowick');
  const place = head.split(',').indexOf('Price');
  const with_ = (line: string, value: string) =>
    line
      .split(',')
      .map((cell, at) => (at === place ? value : cell))
      .join(',');
  const changed = lines.map((line, at) =>
    at === 1 || at === 2
      ? with_(line, '55.00')
      : at === 3
        ? with_(line, 'cheap')
        : at === 4
          ? with_(line, '=A1')
          : line,
  );

  const path = info.outputPath('changed.csv');
  await readIn(page, path, changed.join('\r\n'));
  await expect(page.getByRole('tab', { name: 'Changes 2' })).toHaveAttribute('aria-selected', 'true');
  const rows = page.getByRole('tabpanel', { name: 'Changes' }).getByRole('listitem');
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText('Price');
  await expect(rows.first().locator('ins')).toContainText('55');
  // Found by what stands in it.
  const [, second] = items;
  await page.getByLabel('Words in the rows').fill(second?.sku ?? '');
  await expect(rows).toHaveCount(1);
  await page.getByLabel('Words in the rows').fill('');
  await expect(rows).toHaveCount(2);
  // One of them is left out after all.
  await rows.nth(1).getByRole('checkbox').uncheck();
  await page.getByRole('tab', { name: 'Refused 2' }).click();
  const refused = page.getByRole('tabpanel', { name: 'Refused' });
  await expect(refused).toContainText('This is not an amount');
  await expect(refused).toContainText('A formula stands here, not its value');
  expect(await price(0)).toBe(5_000);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Carried out.', { exact: true })).toBeVisible();
  expect([await price(0), await price(1), await price(2)]).toEqual([5_500, 5_000, 5_000]);

  const report = await download(page, () => page.getByRole('link', { name: '2 refused rows, as a file' }).click());
  await readIn(page, path, report.replace('cheap', '61.00').replace("'=A1", '62.00'));
  await expect(page.getByRole('tab', { name: 'Changes 2' })).toBeVisible();
  await expect(page.getByRole('tab', { name: 'Refused 0' })).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Carried out.', { exact: true })).toBeVisible();
  expect([await price(2), await price(3)]).toEqual([6_100, 6_200]);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect.poll(async () => [await price(2), await price(3)]).toEqual([5_000, 5_000]);
});

test('pasted rows are read in; a column is said by hand and known the next time; what is no table says so', async ({
  page,
}) => {
  const item = await readyItem({ supplier: word });
  await signedIn(page);
  await page.goto('/files');
  const read = page.getByRole('region', { name: 'Read in' });
  await read.getByLabel('Or paste rows from a spreadsheet').fill(`SKU\t${word} where\n${item.sku}\tK-77\n`);
  await read.getByRole('button', { name: 'Read what is pasted' }).click();
  const what = page.getByRole('combobox', { name: `What ${word} where is` });
  await expect(what).toHaveValue('');
  await what.selectOption({ label: 'Place' });
  await page.getByRole('button', { name: 'Compare with the inventory' }).click();
  await expect(page.getByRole('tabpanel', { name: 'Changes' })).toContainText('K-77');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Carried out.', { exact: true })).toBeVisible();
  expect((await sheet(item.id)).item.location).toBe('K-77');

  await page.goto('/files');
  await read.getByLabel('Or paste rows from a spreadsheet').fill(`${word} where;SKU\nK-78;${item.sku}\n`);
  await read.getByRole('button', { name: 'Read what is pasted' }).click();
  await expect(what).toHaveValue('location');
  await expect(page.getByText('as the last time').first()).toBeVisible();

  await page.goto('/files');
  await page.getByLabel('A file to read in').setInputFiles({
    name: 'letter.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4'),
  });
  await expect(read.getByRole('alert')).toContainText('This is a PDF, not a table');
});
