import { expect, type Page, test } from '@playwright/test';
import { jpeg } from '../support/items';
import { control, marketListings, until } from '../support/stack';
import { holdChoosers } from './hand';
import { knot, owner, saved, signIn } from './steps';

/** Moves the focus forward until it is on what is named; the mouse is never used in this file. */
async function tabTo(page: Page, name: string | RegExp, role?: string): Promise<void> {
  for (let presses = 0; presses < 200; presses++) {
    await page.keyboard.press('Tab');
    const seen = await page.evaluate(() => {
      const at = document.activeElement as HTMLElement | null;
      const labelled =
        at && 'labels' in at
          ? [...((at as HTMLInputElement).labels ?? [])].map((label) => label.textContent).join(' ')
          : '';
      return {
        name: (at?.getAttribute('aria-label') ?? (labelled || at?.textContent) ?? '').trim(),
        role: at?.getAttribute('role') ?? at?.tagName.toLowerCase() ?? '',
      };
    });
    const fits = typeof name === 'string' ? seen.name === name : name.test(seen.name);
    if (fits && (!role || role === seen.role)) return;
  }
  throw new Error(`the focus never reached ${name}`);
}

/** A word that no other run of these tests has used. */
const word = `K${Date.now().toString(36)}`;

test('by keyboard alone: sign in, record, publish, lower the price, see it sold', async ({ page }) => {
  holdChoosers(page);
  await page.goto('/sign-in');
  await tabTo(page, 'E-mail address');
  await page.keyboard.type(owner.email);
  await page.keyboard.press('Tab');
  await page.keyboard.type(owner.password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();

  await page.keyboard.press('n');
  await page.waitForURL(/\/items\/new/);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  // The chooser of files is the browser's own: it opens by Enter on the button, and is answered here.
  await tabTo(page, 'Add photos');
  const files = [
    { name: 'one.jpg', mimeType: 'image/jpeg', buffer: await jpeg(1000, '#886644') },
    { name: 'two.jpg', mimeType: 'image/jpeg', buffer: await jpeg(1000, '#446688') },
  ];
  const chooser = page.waitForEvent('filechooser');
  await page.keyboard.press('Enter');
  await (await chooser).setFiles(files);
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toBeVisible();
  await expect(page.getByText(/Uploading/)).toHaveCount(0);

  const type = async (label: string, text: string) => {
    await tabTo(page, label);
    await page.keyboard.type(text);
  };
  await type('Title', `Tessaly IIIc ${word} rangefinder 35 mm film camera`);
  await type('Brand', 'Tessaly');
  await type('Model', 'IIIc');
  await type('Category', 'cameras/rangefinder');
  await tabTo(page, 'Condition', 'select');
  await page.keyboard.type('Excellent');
  await type('Condition note', 'Finder clear.');
  await type('Description', 'Checked with a test film.');
  await type('Price in EUR', '389');
  await type('Weight, with its unit', '0,9 kg');
  await type('Film format', '35 mm');
  await type('Decade', '1950s');
  await saved(page);
  await expect(page.getByRole('columnheader', { name: 'Oakhand' })).toContainText('ready');
  const sku = await page.getByRole('textbox', { name: 'Stock number' }).inputValue();

  // The order of the photos, by keyboard.
  const main = page.getByRole('button', { name: /^Photo 1/ }).locator('img');
  const before = await main.getAttribute('src');
  await page.getByRole('button', { name: /^Photo 2/ }).focus();
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toHaveAttribute('aria-roledescription', 'sortable');
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toBeFocused();
  // Each step is told to those who hear the page; that is also how the test knows that it was taken.
  await page.keyboard.press('Space');
  await expect(page.getByText(/^Photo 2 is over place 2/)).toBeAttached();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByText('Photo 2 is over place 1')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(main).not.toHaveAttribute('src', before ?? '');
  await saved(page);

  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await tabTo(page, 'Publish', 'button');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/publish/);
  await tabTo(page, 'Choose none', 'button');
  await page.keyboard.press('Enter');
  for (const account of [/^Hallowick/, /^Oakhand/, /^Pippet(?! finds)/]) {
    await tabTo(page, account);
    await page.keyboard.press('Space');
  }
  await expect(page.getByRole('button', { name: /: New listing/ })).toHaveCount(3);
  await expect(page.getByRole('button', { name: 'Send 3 listings' })).toBeEnabled();
  await page.getByRole('link', { name: 'To the content' }).focus();
  await tabTo(page, 'Send 3 listings');
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 of 3 done')).toBeVisible();

  // Back through the launcher; search; choose; five percent less.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('inventory');
  await expect(page.getByPlaceholder('Where to?')).toHaveValue('inventory');
  await page.keyboard.press('Enter');
  const grid = page.getByRole('grid');
  await expect(grid).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type(word);
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await tabTo(page, 'Inventory', 'grid');
  await page.keyboard.press('Space');
  await expect(page.getByText('1 chosen', { exact: true })).toBeVisible();
  await page.keyboard.press('e');
  await page.waitForURL(/\/workbench/);
  // The hand is where it goes next: on the value.
  await expect(page.getByRole('textbox', { name: /^Percent/ })).toBeFocused();
  await page.keyboard.type('-5');
  await expect(page.getByText('1 of 1 items change')).toBeVisible();
  await tabTo(page, 'Save and send 3 listings');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '1 item is changed' })).toBeVisible();
  for (const market of ['hallowick', 'pippet', 'oakhand'])
    await until(
      () => marketListings(market, sku),
      ([one]) => one?.summary.price === 36_955,
    );

  const [there] = await marketListings('pippet', sku);
  await control('pippet', 'buy', { listing: there?.id });
  await until(
    () => marketListings('hallowick', sku),
    ([one]) => one?.state === 'ended',
  );
  await until(
    () => marketListings('oakhand', sku),
    ([one]) => one?.state === 'ended',
  );
  await page.keyboard.press('Control+k');
  await page.keyboard.type('sales');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: new RegExp(word) })).toBeVisible();
  await tabTo(page, new RegExp(word), 'a');
  await page.keyboard.press('Enter');
  await expect(knot(page, 'Pippet', 'Sold')).toBeVisible();
});

test('a range of knots is chosen with Shift and sent', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail address').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.keyboard.press('Enter');
  const grid = page.getByRole('grid', { name: 'Inventory' });
  await expect(grid).toBeVisible();
  await page.goto('/?stage=ready&category=straps');
  await expect(grid.getByRole('row').nth(3)).toBeVisible();
  await tabTo(page, 'Inventory', 'grid');
  for (let right = 0; right < 6; right++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('4 knots')).toBeVisible();
  await page.keyboard.press('p');
  await page.waitForURL(/\/publish\?.*accounts=/);
  await expect(page.getByRole('checkbox', { checked: true })).toHaveCount(2);
});

test('Tab goes on to the next field while proposals come up beside it, and a proposal is reached on purpose', async ({
  page,
}) => {
  await signIn(page);
  await page.keyboard.press('n');
  await page.waitForURL(/\/items\/new/);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
  await page.keyboard.type('Brask K-2 film camera');
  await tabTo(page, 'Category');
  await page.keyboard.type('came');
  await saved(page);
  const cell = page.getByRole('cell').filter({ hasText: '“came” has no counterpart on Oakhand yet' });
  await expect(cell.getByRole('button').nth(1)).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('combobox', { name: 'Condition', exact: true })).toBeFocused();

  await page.keyboard.press('Shift+Tab');
  await expect(page.getByRole('combobox', { name: 'Category', exact: true })).toBeFocused();
  await page.keyboard.press('Alt+ArrowRight');
  for (let cells = 0; cells < 12; cells++) {
    const here = await page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
    if (here?.startsWith('Category on Oakhand')) break;
    await page.keyboard.press('ArrowRight');
  }
  await page.keyboard.press('Tab');
  await expect(cell.getByRole('button').nth(1)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/“came” is kept for Oakhand/)).toBeVisible();
  const forgotten = await page.evaluate(async () => {
    const answer = await fetch('/api/v1/mappings/forget', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ market: 'oakhand', id: 'category/came' }),
    });
    return answer.ok;
  });
  expect(forgotten).toBe(true);
});
