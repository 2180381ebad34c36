import { expect, type Page, test } from '@playwright/test';
import { comesTo, publishItems, readyItem } from '../support/items';
import { previewOn, rulesOf, valueFor } from '../support/preview';
import { accountOf, call, control, marketListings, stack, until } from '../support/stack';
import { signedIn, signIn } from './steps';

const row = (page: Page, label: string) => page.getByRole('row', { name: new RegExp(`^${label} `) });

test('one item for all accounts: origins, a buyer’s view, another title, the price for a wanted net', async ({
  page,
}) => {
  const item = await readyItem({
    title: 'Brask K-2 camera of this very test, with a long story about its owner, 1970s',
    lengthMm: 190,
    widthMm: 130,
    heightMm: 120,
  });
  await signedIn(page);
  await page.goto(`/items/${item.id}`);
  await page.getByRole('link', { name: 'What they get' }).click();
  await expect(page.getByRole('heading', { name: 'What each marketplace gets' })).toBeVisible();
  const accounts = page.getByRole('navigation', { name: 'Accounts' });
  await accounts.getByRole('button', { name: /Selasar/ }).click();
  await expect(page).toHaveURL(/account=\d+/);
  const selasar = page.getByRole('region', { name: 'What Selasar gets' });
  await expect(selasar.getByRole('row', { name: /^Price/ })).toContainText('SGD');
  await expect(selasar.getByRole('row', { name: /^Price/ })).toContainText('holds postage and fees');
  await expect(selasar.getByRole('row', { name: /^Shade/ })).toContainText('by rule');
  await expect(
    page.getByRole('region', { name: 'What a buyer sees on Selasar' }).getByRole('heading', { level: 3 }),
  ).toContainText('(Jet)');

  // Another way to say the title is one click, and only for this marketplace.
  await accounts.getByRole('button', { name: 'Pippet finds' }).click();
  const versions = row(page, 'Title').getByRole('button');
  const other = (await versions.first().textContent()) ?? '';
  await versions.first().click();
  await expect(page.getByText('Pippet finds has its own title now')).toBeVisible();
  await expect(row(page, 'Title')).toContainText('own here');
  await expect(row(page, 'Title')).toContainText(other);

  // The price for a net of 60, ending .90, on every account; one click takes it there.
  await page.getByLabel('Wanted').fill('60');
  const line = page.getByRole('row', { name: /^Hallowick/ });
  const solved = line.getByRole('button');
  await expect(solved).toHaveText(/\.90$/);
  const price = Math.round(Number((await solved.textContent())?.replace(/[^\d.]/g, '')) * 100);
  await solved.click();
  await expect(page.getByText('Hallowick has its own price now')).toBeVisible();
  expect(valueFor(await previewOn(item.id, 'hallowick'), 'price')).toMatchObject({ value: price, origin: 'override' });
});

test('comparable sales: figures and charts, another window, a figure taken over', async ({ page }) => {
  const item = await readyItem({ brand: 'Brask', model: 'K-2', price: 9_999 });
  await signedIn(page);
  await page.goto(`/items/${item.id}/preview`);
  const section = page.getByRole('region', { name: 'What such things sold for' });
  await section.scrollIntoViewIfNeeded();
  await expect(section.getByText('Pieces by price')).toBeVisible();
  await expect(section.locator('.recharts-bar-rectangle').first()).toBeVisible();
  await section.getByRole('button', { name: '365 days' }).click();
  await expect(section.getByRole('button', { name: '365 days' })).toHaveAttribute('aria-pressed', 'true');
  await expect(section.getByText(/\d+, \d+ pieces/)).toBeVisible();
  await section.getByRole('button', { name: 'Take over' }).click();
  await expect(page.getByText(/The item’s price is €[\d.]+ now/)).toBeVisible();
  const { body } = await call<{ item: { price: number } }>('GET', `/items/${item.id}`);
  expect(body.item.price).not.toBe(9_999);
});

let isStricter = false;
test.afterEach(async () => {
  if (isStricter) await control('shopfront', 'rule', { path: 'limits.title', value: 150 });
  isStricter = false;
});

test('a rule is changed on the control page: the listings concerned are counted, one click mends and sends them', async ({
  page,
}) => {
  const account = await accountOf('Shopfront');
  const item = await readyItem();
  const long = 'Brask K-2 camera, a story that goes on and on and on for longer than any buyer would read';
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'title', value: long });
  await publishItems([item.id], [account]);
  await comesTo(item.id, account, 'live');
  await signIn(page);

  const before = (await rulesOf('shopfront')).to;
  await page.goto(`${stack.markets}/control`);
  await page.getByRole('link', { name: 'Shopfront' }).click();
  const shopfront = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Shopfront' }) });
  const publish = page.getByRole('button', { name: 'Publish another rule' });
  const rule = shopfront.locator('form').filter({ has: publish });
  await rule.getByLabel('Rule').fill('limits.title');
  await rule.getByLabel('is now').fill('80');
  isStricter = true;
  await publish.click();
  await expect(page.getByRole('heading', { name: 'Done' })).toBeVisible();
  await until(
    () => rulesOf('shopfront'),
    (rules) =>
      rules.to > before &&
      rules.violations.some((one) => one.code === 'title-long' && one.items.some(({ id }) => id === item.id)),
  );

  await page.goto('/marketplaces');
  await page.getByRole('region', { name: 'Shopfront' }).getByRole('link', { name: 'Rules, fees, prices' }).click();
  await expect(page.getByText(/max: 150 → 80/)).toBeVisible();
  const violation = page.locator('[data-violation=title-long]').filter({ hasText: item.sku });
  await expect(violation).toContainText(/\d live/);
  await violation.getByRole('button', { name: 'Mend and send' }).click();
  await expect(violation).toHaveCount(0);
  await until(
    async () => [...((await marketListings('shopfront', item.sku))[0]?.summary.title ?? '')].length,
    (length) => length > 0 && length <= 80,
  );
});

test('a template by keyboard: written, tried out, kept, seen in the listing, removed', async ({ page }) => {
  const item = await readyItem({ supplier: 'Keyboard supplier' });
  await signedIn(page);
  await page.goto('/templates');
  await page.getByRole('button', { name: 'New template' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Name' }).focus();
  await page.keyboard.type('By keyboard');
  const lanesend = page.getByRole('checkbox', { name: 'Lanesend' });
  await lanesend.focus();
  await page.keyboard.press('Space');
  await expect(lanesend).toBeChecked();
  await page.getByRole('button', { name: 'Add a condition' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Field of condition 1' }).selectOption('supplier');
  await page.getByRole('combobox', { name: 'Comparison of condition 1' }).selectOption('is');
  await page.getByRole('textbox', { name: 'Value of condition 1' }).focus();
  await page.keyboard.type('Keyboard supplier');
  await page.getByRole('textbox', { name: 'Line under the description' }).focus();
  await page.keyboard.type('Kept in {{ nowhere }}');
  await page.getByRole('button', { name: 'Try it out' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'listings would change' })).toContainText('needs “nowhere”');
  const footer = page.getByRole('textbox', { name: 'Line under the description' });
  await footer.focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Number {{ stock_number }}');
  await page.getByRole('button', { name: 'Try it out' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'listings would change' })).toContainText(
    `Number ${item.sku}`,
  );
  await page.getByRole('button', { name: 'Keep the template' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('“By keyboard” is kept')).toBeVisible();
  expect(String(valueFor(await previewOn(item.id, 'lanesend'), 'description').value)).toContain(`Number ${item.sku}`);
  await page.getByRole('button', { name: 'Remove', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('“By keyboard” is removed')).toBeVisible();
  expect(String(valueFor(await previewOn(item.id, 'lanesend'), 'description').value)).not.toContain(
    `Number ${item.sku}`,
  );
});

test('a template says what a marketplace has for itself, for things in one condition; an empty field says what they get now', async ({
  page,
}) => {
  const [fine, worn] = [await readyItem({ supplier: 'Own fields' }), await readyItem({ condition: 'fair' })];
  const name = `Own fields of ${fine.sku}`;
  await signedIn(page);
  await page.goto('/templates');
  await page.getByRole('button', { name: 'New template' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('checkbox', { name: 'Hallowick' }).check();
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByRole('combobox', { name: 'Field of condition 1' }).selectOption('condition');
  await page.getByRole('combobox', { name: 'Comparison of condition 1' }).selectOption('is');
  await page.getByRole('combobox', { name: 'Value of condition 1' }).selectOption('Very good');
  // What is not said here comes from the account, and that is named where it would be typed.
  await expect(page.getByRole('combobox', { name: 'Returns' }).locator('option').first()).toHaveText(
    /^now Hallowick: /,
  );
  await page.getByRole('combobox', { name: 'Offers allowed' }).selectOption('Yes');
  await page.getByRole('textbox', { name: 'Days of handling' }).fill('soon');
  await page.getByRole('button', { name: 'Keep the template' }).click();
  await expect(page.getByLabel('Days of handling').locator('xpath=..')).toContainText(/whole number/i);
  // What is emptied stays in sight.
  await page.getByRole('textbox', { name: 'Days of handling' }).fill('');
  await page.getByRole('combobox', { name: 'Offers allowed' }).selectOption('');
  await expect(page.getByRole('textbox', { name: 'Days of handling' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Offers allowed' }).selectOption('Yes');
  await page.getByRole('textbox', { name: 'Days of handling' }).fill('4');
  await page.getByRole('button', { name: 'Keep the template' }).click();
  await expect(page.getByText(`“${name}” is kept`)).toBeVisible();
  const got = await previewOn(fine.id, 'hallowick');
  expect(valueFor(got, 'extra.offers')).toMatchObject({ value: true });
  expect(valueFor(got, 'extra.handlingDays')).toMatchObject({ value: 4 });
  expect(valueFor(await previewOn(worn.id, 'hallowick'), 'extra.handlingDays').value).not.toBe(4);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByText(`“${name}” is removed`)).toBeVisible();
});

test('boxes, a quote while it is typed, today’s rates', async ({ page }) => {
  await signedIn(page);
  await page.goto('/postage');
  const boxes = page.getByRole('region', { name: 'Boxes' });
  await boxes.getByLabel('Name').fill('Long tube');
  await boxes.getByLabel('Weight').fill('90 g');
  await boxes.getByLabel('Length').fill('70 cm');
  await boxes.getByLabel('Width').fill('4 in');
  await boxes.getByLabel('Height').fill('nonsense');
  await boxes.getByRole('button', { name: 'Add' }).click();
  await expect(boxes.getByRole('alert')).toContainText('Height is not understood');
  await boxes.getByLabel('Height').fill('10,2 cm');
  await boxes.getByRole('button', { name: 'Add' }).click();
  await expect(boxes.getByText('70 × 10.2 × 10.2 cm')).toBeVisible();
  await boxes.getByRole('button', { name: 'Remove Long tube' }).click();
  await expect(boxes.getByRole('button', { name: 'Remove Long tube' })).toHaveCount(0);

  const quotes = page.getByRole('region', { name: 'What carriers ask' });
  await quotes.getByLabel('Weight').fill('1 lb 3 oz');
  await quotes.getByLabel('Length × width × height').fill('40 × 30 × 20 cm');
  await expect(quotes.getByText('counts 4 kg')).toBeVisible();
  await quotes.getByLabel('Weight').fill('heavy');
  await expect(quotes.getByRole('alert')).toContainText('not understood');

  const rates = page.getByRole('region', { name: 'Exchange rates' });
  await rates.getByRole('button', { name: 'Ask for today’s rates' }).click();
  await expect(page.getByText('Rates are of today')).toBeVisible();
  await expect(rates.getByRole('row', { name: /SGD/ }).first()).toBeVisible();
});

test('what was learned is seen and can be taken back; prices and wording of an account are kept', async ({ page }) => {
  await call('POST', '/mappings', {
    market: 'selasar',
    kind: 'value',
    attribute: 'shade',
    source: 'Mauve',
    target: 'Red',
  });
  await signedIn(page);
  await page.goto('/marketplaces');
  await page.getByRole('region', { name: 'Selasar' }).getByRole('link', { name: 'Rules, fees, prices' }).click();
  const known = page.getByRole('region', { name: 'What was learned' }).first();
  await expect(known.getByRole('row', { name: /mauve/ })).toContainText('Red');
  await known.getByRole('button', { name: 'Take back mauve' }).click();
  await expect(known.getByRole('row', { name: /mauve/ })).toHaveCount(0);
  await expect(page.getByText('Label up to 1 kg')).toBeVisible();
  await page.getByLabel('Tag that always stands last').fill('osterlund');
  await page.getByRole('button', { name: 'Keep prices and wording' }).click();
  await expect(page.getByText(/Selasar is saved/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Tag that always stands last')).toHaveValue('osterlund');
});
