import { expect, type Page, test } from '@playwright/test';
import { type Sheet, sheet } from '../support/items';
import { kitOf, lotsIn, newKit, put, setLots } from '../support/kits';
import { until } from '../support/stack';
import { signedIn } from './steps';

const lots = (page: Page) => page.getByRole('table', { name: 'Lots' });
const cell = (page: Page, row: number, column: string) =>
  lots(page).locator(`input[data-row="${row}"][data-column="${column}"]`);
const total = (page: Page, name: string) => page.getByLabel('Totals').locator('div', { hasText: name }).locator('dd');
const toolbar = (page: Page) => page.getByRole('toolbar', { name: 'Chosen lots' });
const mark = (page: Page, row: number) =>
  lots(page)
    .locator(`[aria-rowindex="${row + 2}"]`)
    .getByRole('checkbox');

async function begin(page: Page, cost = '90.00'): Promise<{ id: number; name: string }> {
  await signedIn(page);
  await page.goto('/kits');
  await page.getByRole('button', { name: 'Take sets apart' }).click();
  const dialog = page.getByRole('dialog', { name: 'Take sets apart' });
  const name = `Outfits ${Date.now()}`;
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByLabel('What all of them cost').fill(cost);
  await dialog.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name })).toBeVisible();
  return { id: Number(/\/kits\/(\d+)/.exec(page.url())?.[1]), name };
}

async function add(page: Page, fill: (dialog: ReturnType<Page['getByRole']>) => Promise<void>): Promise<void> {
  await page.getByRole('button', { name: 'Add contents' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'Add contents' });
  await fill(dialog);
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
}

const write = (text: string) => async (dialog: ReturnType<Page['getByRole']>) => {
  await dialog.getByText('Written', { exact: true }).click();
  await dialog.getByLabel('One thing a line').fill(text);
};

/** What buyers see of a lot on the marketplace of the catalogue. */
async function publicPage(item: number): Promise<string> {
  const column = (one: Sheet) => one.columns.find((other) => other.name === 'Lotbarn');
  const there = await until(
    async () => column(await sheet(item)),
    (one) => one?.state === 'live',
    60_000,
  );
  return (await fetch(there?.url ?? '')).text();
}

test('three outfits: joined, priced, −5 %, ten with drawers, twelve sent, the rest kept; next day they are changed', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const { id, name } = await begin(page);
  await add(page, async (dialog) => {
    await dialog.getByLabel('Number of the set there').fill('LB4031');
    await dialog.getByLabel('How many sets').fill('3');
    await dialog.getByLabel('Condition').selectOption('poor');
  });
  await expect(lots(page).getByRole('row').nth(5)).toBeVisible();
  const all = (await lotsIn(id)).length;
  expect(all).toBeGreaterThan(45);
  await expect(total(page, 'Without a price')).toHaveText(String(all));
  await expect(lots(page).getByText('2 joined').first()).toBeVisible();

  // By what they sold for, five percent less.
  await page.getByRole('button', { name: 'Prices' }).click();
  const prices = page.getByRole('dialog', { name: 'Prices from comparable sales' });
  await prices.getByLabel('Up or down, %').fill('-5');
  await prices.getByRole('button', { name: 'Price them' }).click();
  await expect(page.getByText(/lots are priced/)).toBeVisible({ timeout: 60_000 });
  const priced = await lotsIn(id);
  for (const lot of priced.filter((one) => one.basis && !one.basis.isFloor))
    expect(Math.abs((lot.price ?? 0) - (lot.basis?.found ?? 0) * 0.95)).toBeLessThanOrEqual(0.5);
  await cell(page, 1, 'price').focus();
  await expect(page.getByText(/sales? in \d+ days|present offer|of the same kind/).first()).toBeVisible();

  // One by hand, down the column by keyboard: 15.00, and then 14.00 after all.
  await cell(page, 0, 'price').focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('15.00');
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'price')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.type('14.00');
  await page.keyboard.press('Enter');
  await expect(lots(page).getByRole('button', { name: /: kept$/ })).toHaveCount(1);

  // The first ten get drawers, twelve go into stock and on the marketplace.
  await mark(page, 0).focus();
  await page.keyboard.press('Space');
  await mark(page, 9).click({ modifiers: ['Shift'] });
  await expect(toolbar(page).getByText('10 chosen')).toBeVisible();
  await toolbar(page).getByRole('button', { name: 'Drawers' }).click();
  const drawers = page.getByRole('dialog', { name: 'Drawers for 10 lots' });
  await drawers.getByLabel('From').fill(`K${id}-1`);
  await drawers.getByLabel('To', { exact: true }).fill(`K${id}-9`);
  await drawers.getByRole('button', { name: 'Give them drawers' }).click();
  await expect(drawers.getByRole('alert')).toHaveText('1 lot is without room: the drawers are full');
  await drawers.getByLabel('To', { exact: true }).fill(`K${id}-10`);
  await drawers.getByRole('button', { name: 'Give them drawers' }).click();
  await expect(drawers).toHaveCount(0);
  await expect(cell(page, 9, 'place')).toHaveValue(`K${id}-10`);
  await mark(page, 10).click();
  await mark(page, 11).click();
  await toolbar(page).getByRole('button', { name: 'Add to stock' }).click();
  const stock = page.getByRole('dialog', { name: 'Add pieces to the stock' });
  await stock.getByLabel('Price of all').selectOption('replaced');
  await stock.getByLabel('Place of all').selectOption('replaced');
  await stock.getByLabel('Offer them on the marketplace of the catalogue, too').check();
  await stock.getByRole('button', { name: 'Add 12 to stock' }).click();
  await expect(total(page, 'In stock')).toHaveText('12', { timeout: 30_000 });
  const first = (await lotsIn(id))[0];
  if (!first?.item) throw new Error('the first lot is not in stock');
  expect(await publicPage(first.item.id)).toContain('14.00 EUR');

  // Another day, on another machine: the rest is as it was left; the twelve are changed, and nothing is added.
  await page.goto('/kits');
  await page.getByRole('link', { name }).click();
  await expect(total(page, 'In stock')).toHaveText('12');
  const units = (await sheet(first.item.id)).item.quantity;
  await mark(page, 0).click();
  await mark(page, 11).click({ modifiers: ['Shift'] });
  await toolbar(page).getByRole('button', { name: 'Add to stock' }).click();
  await stock.getByRole('button', { name: 'Add 12 to stock' }).click();
  await expect(stock.getByRole('alert')).toContainText('12 of these lots are in stock already');
  await stock.getByRole('button', { name: 'Close' }).click();
  await toolbar(page).getByRole('button', { name: 'Change', exact: true }).click();
  const steps = page.getByRole('dialog', { name: 'Change 12 lots' });
  await steps.getByLabel('Percent').fill('-10');
  await steps.getByRole('button', { name: 'Change them' }).click();
  await expect(steps).toHaveCount(0);
  await expect(cell(page, 0, 'price')).toHaveValue('12.60');
  await page.getByRole('button', { name: 'Change 12 in stock' }).click();
  const there = page.getByRole('dialog', { name: 'Change what is in stock' });
  await expect(there.getByText('€14.00')).toBeVisible();
  await there.getByRole('button', { name: 'Change 12 in stock' }).click();
  await expect(page.getByText('12 lots are changed in stock')).toBeVisible({ timeout: 30_000 });
  await until(
    () => publicPage(first.item?.id ?? 0),
    (text) => text.includes('12.60 EUR'),
    60_000,
  );
  expect((await sheet(first.item.id)).item.quantity).toBe(units);

  // The other way round: what is not there cannot be changed there.
  await page.getByRole('button', { name: 'Choose none' }).click();
  await mark(page, 13).click();
  await toolbar(page).getByRole('button', { name: 'Change in stock' }).click();
  await there.getByRole('button', { name: 'Change 1 in stock' }).click();
  await expect(there.getByRole('alert')).toContainText('not in stock yet');
  await there.getByRole('button', { name: 'Add the pieces instead' }).click();
  await expect(stock.getByRole('button', { name: 'Add 1 to stock' })).toBeVisible();
});

test('lists are written, pasted and found again: vague numbers, drawers that are scanned, groups, missing and damaged', async ({
  page,
}) => {
  const { id } = await begin(page);
  await add(page, write('2 x enlarger lamp\nabout ten x peg'));
  const dialog = page.getByRole('dialog', { name: 'Add contents' });
  await expect(dialog.getByRole('alert')).toContainText('Line 2, “about ten x peg”');
  await dialog.getByLabel('One thing a line').fill('6 x enlarger lamp\nenlarger lamp (spare)\n9 x peg\n4 x tray');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('20 pieces, 3 new lots, equal lines joined in 1 lot')).toBeVisible();

  await cell(page, 0, 'price').focus();
  await page.keyboard.type('cheap');
  await page.keyboard.press('Enter');
  await expect(lots(page).getByRole('alert')).toHaveText('No amount; write it as in 1.50');
  await cell(page, 0, 'price').focus();
  await page.keyboard.press('Escape');
  await expect(lots(page).getByRole('alert')).toHaveCount(0);
  await page.keyboard.type('2.50');
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'price')).toBeFocused();
  await page.keyboard.press('ControlOrMeta+d');
  await expect(cell(page, 1, 'price')).toHaveValue('2.50');
  await cell(page, 0, 'place').focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'A1\nA2\nB1');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(cell(page, 2, 'place')).toHaveValue('B1');
  await until(
    () => lotsIn(id),
    (seen) => seen.map((lot) => lot.place).join() === 'A1,A2,B1',
  );

  // The drawer is scanned, and its lot stands there alone.
  await page.getByRole('searchbox', { name: 'Find lots' }).fill('a2');
  await expect(page.getByText('1 of 3 lots')).toBeVisible();
  await expect(cell(page, 0, 'pieces')).toHaveValue('9');
  await page.getByRole('searchbox', { name: 'Find lots' }).fill('');
  await lots(page).getByRole('button', { name: 'Pieces' }).click();
  await expect(cell(page, 0, 'pieces')).toHaveValue('4');
  await page.getByLabel('Groups').selectOption('place');
  await expect(lots(page).getByText('1 lots, 4 pieces')).toBeVisible();
  await page.getByLabel('Groups').selectOption('none');
  await page.getByText('Columns', { exact: true }).click();
  await page.getByRole('checkbox', { name: 'Cost share' }).check();
  await expect(lots(page).getByRole('columnheader', { name: 'Cost share' })).toBeVisible();

  // Two are missing, one is damaged; what was joined is taken apart again.
  await lots(page).getByRole('button', { name: /^peg/ }).click();
  const peg = page.getByRole('dialog', { name: 'peg' });
  await peg.getByLabel('Missing').fill('2');
  await peg.getByRole('button', { name: 'Take them off' }).click();
  await lots(page).getByRole('button', { name: /^peg/ }).click();
  await peg.getByLabel('Damaged').fill('1');
  await peg.getByRole('button', { name: 'Make them a lot of their own' }).click();
  await expect(total(page, 'Lots')).toHaveText('4');
  await lots(page)
    .getByRole('button', { name: /^enlarger lamp/ })
    .click();
  await page.getByRole('button', { name: 'Take apart again' }).last().click();
  await expect(total(page, 'Lots')).toHaveText('5');
  expect((await lotsIn(id)).map((lot) => lot.quantity).sort()).toEqual([1, 1, 4, 6, 6]);
  expect((await kitOf(id)).totals.pieces).toBe(18);
  await page.getByRole('button', { name: 'Close the list' }).click();
  await expect(page.getByRole('button', { name: 'Add contents' })).toBeDisabled();
});

test('in parts or whole: both side by side, and the sets offered whole beside their parts', async ({ page }) => {
  const { id, name } = await begin(page);
  await add(page, write('6 x lamp house\n3 x lamp base'));
  await expect(total(page, 'Lots')).toHaveText('2');
  for (const row of [0, 1]) {
    await cell(page, row, 'price').fill('8.00');
    await cell(page, row, 'price').press('Enter');
  }
  await page.getByRole('button', { name: 'In parts or whole' }).click();
  const both = page.getByRole('dialog', { name: 'In parts or whole' });
  await both.getByLabel('Sets', { exact: true }).fill('3');
  await both.getByLabel('Or: a whole one brings').fill('12.00');
  await both.getByRole('button', { name: 'Work it out' }).click();
  const table = both.getByRole('table', { name: 'In parts or whole' });
  await expect(table.getByRole('row', { name: /^In parts, all of it/ })).toContainText('€72.00');
  await expect(table.getByRole('row', { name: /^Whole/ })).toContainText('€36.00');
  await expect(both.getByText(/Parts bring as much as the whole once/)).toBeVisible();
  await both.getByLabel('So many sets').fill('3');
  await both.getByRole('button', { name: 'Make the item' }).click();
  await expect(both.getByRole('alert')).toContainText('2 lots are not in stock yet');
  await both.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Add 2 to stock' }).click();
  await page
    .getByRole('dialog', { name: 'Add pieces to the stock' })
    .getByRole('button', { name: 'Add 2 to stock' })
    .click();
  await expect(total(page, 'In stock')).toHaveText('2', { timeout: 30_000 });
  await page.getByRole('button', { name: 'In parts or whole' }).click();
  await both.getByLabel('So many sets').fill('3');
  await both.getByRole('button', { name: 'Make the item' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' }).first()).toHaveValue(name);
  const item = Number(/\/items\/(\d+)/.exec(page.url())?.[1]);
  const [part] = await lotsIn(id);
  const before = (await sheet(part?.item?.id ?? 0)).item.quantity;
  expect((await sheet(item)).item.quantity).toBeGreaterThanOrEqual(3);
  expect(before).toBeGreaterThanOrEqual(6);

  // Beside the sheet stands what it is made of; another number of pieces makes other wholes.
  await page.keyboard.press('Alt+b');
  const made = page.getByRole('region', { name: 'Made of' });
  await expect(made.getByRole('listitem')).toHaveCount(2);
  await made.getByLabel('Pieces of lamp house').fill(String(before));
  await made.getByLabel('Pieces of lamp house').press('Enter');
  await until(
    async () => (await sheet(item)).item.quantity,
    (quantity) => quantity === 1,
  );
  await made.getByRole('link', { name: 'lamp base' }).click();
  await expect(page.getByRole('textbox', { name: 'Title' }).first()).toHaveValue('lamp base');
  await page.getByRole('button', { name: 'Beside' }).click();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await expect(page.getByRole('region', { name: 'Part of' }).getByRole('link', { name })).toBeVisible();
});

test('by keyboard alone: priced, three marked and put into stock, one changed there', async ({ page }) => {
  const id = await newKit();
  await put(id, { text: `6 x hook ${Date.now()}\n3 x rail ${Date.now()}\n2 x peg ${Date.now()}` });
  await signedIn(page);
  await page.goto(`/kits/${id}`);
  await cell(page, 0, 'price').focus();
  for (const price of ['2.50', '3.50', '4.50']) {
    await page.keyboard.type(price);
    await page.keyboard.press('Enter');
  }
  await expect(total(page, 'Ready')).toHaveText('3');
  await page.getByRole('checkbox', { name: 'Choose all that are shown' }).focus();
  await page.keyboard.press('Space');
  await toolbar(page).getByRole('button', { name: 'Add to stock' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').getByRole('button', { name: 'Add 3 to stock' }).focus();
  await page.keyboard.press('Enter');
  await expect(total(page, 'In stock')).toHaveText('3', { timeout: 30_000 });
  await cell(page, 1, 'price').focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('3.25');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Change 1 in stock' }).focus();
  await page.keyboard.press('Enter');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Change \d+ in stock/ })
    .focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 lot is changed in stock')).toBeVisible({ timeout: 30_000 });
  const [, rail] = await lotsIn(id);
  expect((await sheet(rail?.item?.id ?? 0)).item.price).toBe(325);
});

test('what one lot refuses, or a lost connection, takes nothing else with it', async ({ page, context }) => {
  const id = await newKit();
  await put(id, { text: `6 x bolt ${Date.now()}\n3 x nut ${Date.now()}\n2 x shim ${Date.now()}` });
  await signedIn(page);
  await page.goto(`/kits/${id}`);
  await expect(cell(page, 2, 'price')).toBeVisible();
  await setLots(id, (_lot, at) => (at === 0 ? { place: 'Z9' } : null));
  // All three while the first is on its way.
  await cell(page, 0, 'price').focus();
  for (const price of ['2.50', '3.50', '4.50']) {
    await page.keyboard.type(price);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText(/^bolt .*Somebody changed it meanwhile/)).toBeVisible();
  const prices = async () => (await lotsIn(id)).map((lot) => lot.price);
  await until(prices, (seen) => seen.join() === ',350,450');
  await expect(cell(page, 0, 'place')).toHaveValue('Z9');

  await context.setOffline(true);
  await cell(page, 1, 'comment').fill('Washed');
  await cell(page, 1, 'comment').press('Enter');
  await expect(page.getByText(/cannot be reached/).first()).toBeVisible();
  await context.setOffline(false);
  await until(
    async () => (await lotsIn(id))[1]?.comment,
    (comment) => comment === 'Washed',
  );
});
