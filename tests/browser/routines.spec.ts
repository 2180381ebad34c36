import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { publishItems, readyFilm, readyItem, sheet, stateOn } from '../support/items';
import { accountOf, marketListings, until } from '../support/stack';
import { signedIn } from './steps';

const word = `R${Date.now().toString(36)}`;
const found = (supplier: string) =>
  `/?where=${encodeURIComponent(JSON.stringify({ all: [{ field: 'supplier', op: 'is', value: supplier }] }))}`;

test('steps are kept as a routine, carried out again, seen on the workbench, handed on as a file', async ({ page }) => {
  const [one, other] = [
    await readyItem({ supplier: word, price: 10_000 }),
    await readyItem({ supplier: word, price: 20_000 }),
  ];
  const prices = () => Promise.all([one, other].map(async ({ id }) => (await sheet(id)).item.price));
  await signedIn(page);
  await page.goto(found(word));
  await expect(page.getByText('2 items', { exact: true })).toBeVisible();
  await page.getByRole('grid', { name: 'Inventory' }).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('e');
  // First of all: what they have in common; what is typed there is a step.
  const common = page.getByRole('table', { name: 'In common' });
  await expect(common.getByRole('row', { name: /^Supplier/ })).toContainText(word);
  await expect(common.getByRole('row', { name: /^Price/ })).toContainText('2 different');
  await common.getByLabel('Set place to').fill('K9');
  await expect(page.getByLabel('Field of step 1')).toHaveValue('location');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Field of step 2').selectOption({ label: 'Price' });
  await page.getByPlaceholder('-5').fill('-10');
  await page.getByRole('button', { name: 'Routines' }).click();
  await page.getByLabel('Name of this routine').fill(`${word} cheaper`);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(`Kept as ${word} cheaper`)).toBeVisible();
  // Esc closes what was opened last.
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Name of this routine')).toBeHidden();
  expect(await prices()).toEqual([10_000, 20_000]);

  await page.goto('/routines');
  const card = page.getByRole('article', { name: `${word} cheaper` });
  await expect(card.getByRole('listitem').filter({ hasText: 'price −10 %' })).toBeVisible();
  await card.getByRole('button', { name: 'Carry it out on 2 items now' }).click();
  await until(prices, (now) => now.join() === '9000,18000');
  await expect(card.getByRole('region', { name: `Runs of ${word} cheaper` }).getByRole('link')).toHaveCount(1);
  // A plan is tried at once, and changes nothing before it is let.
  await card.getByRole('button', { name: 'Try it by this plan' }).click();
  await expect(card.getByText('Tried: 2 items would change. Nothing was done')).toBeVisible();
  await card.getByRole('button', { name: 'Let it change things from now on' }).click();
  await expect(card.getByRole('button', { name: 'No plan' })).toBeVisible();
  await card.getByRole('button', { name: 'No plan' }).click();
  await expect(card.getByRole('button', { name: 'Try it by this plan' })).toBeVisible();
  expect(await prices()).toEqual([9_000, 18_000]);

  const saved = page.waitForEvent('download');
  await card.getByRole('button', { name: 'Save as a file' }).click();
  const file = await (await saved).path();
  const text = readFileSync(file, 'utf8').replace(`${word} cheaper`, `${word} theirs`);
  const from = page.getByLabel('Take one from a file');
  await from.setInputFiles({ name: 'wrong.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') });
  await expect(page.getByText('This is no routine')).toBeVisible();
  await from.setInputFiles({ name: 'theirs.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page.getByRole('article', { name: `${word} theirs` })).toBeVisible();

  await card.getByRole('button', { name: 'See it on the workbench' }).click();
  await expect(page.getByLabel('Field of step 2')).toHaveValue('price');
  await expect(page.getByText('2 of 2 items change')).toBeVisible();

  // What it did, value by value; one of them is taken back.
  await page.goto('/routines');
  await card
    .getByRole('region', { name: `Runs of ${word} cheaper` })
    .getByRole('link')
    .click();
  await page.getByRole('checkbox', { name: `Choose Price of ${other.sku}` }).check();
  await page.getByRole('button', { name: 'Take back 1 chosen value' }).click();
  await until(prices, (now) => now.join() === '9000,20000');
  await expect(page.getByText('taken back', { exact: true })).toHaveCount(1);
  for (const name of [`${word} cheaper`, `${word} theirs`]) {
    await page.goto('/routines');
    await page.getByRole('article', { name }).getByRole('button', { name: 'Forget it' }).click();
    await expect(page.getByRole('article', { name })).toHaveCount(0);
  }
});

test('one account is held back, and its field is sent from Changed', async ({ page }) => {
  const places = await Promise.all(['Oakhand', 'Shopfront'].map(accountOf));
  const film = await readyFilm(2);
  await publishItems([film.id], places);
  await until(
    () => Promise.all(places.map((one) => stateOn(film.id, one))),
    (states) => states.every((state) => state === 'live'),
  );
  const price = async (market: string) =>
    (await marketListings(market)).find((one) => one.summary.reference.startsWith(film.sku))?.summary.price;
  const before = await price('oakhand');
  await signedIn(page);
  await page.goto(`/workbench?ids=${film.id}`);
  await page.getByPlaceholder('-5').fill('-10');
  await page.getByRole('checkbox', { name: 'Send to Oakhand' }).uncheck();
  await page.getByRole('button', { name: 'Save and send 1 listing', exact: true }).click();
  await expect(page.getByRole('heading', { name: '1 item is changed' })).toBeVisible();
  await until(
    () => price('shopfront'),
    (now) => now === 1_791,
  );
  expect(await price('oakhand')).toBe(before);
  await page
    .getByRole('navigation', { name: 'Stages of the work' })
    .getByRole('link', { name: /^Changed/ })
    .click();
  await page.getByLabel('Account', { exact: true }).selectOption({ label: 'Oakhand' });
  await page.getByRole('checkbox', { name: `Choose Price of ${film.sku} on Oakhand` }).check();
  await page.getByRole('button', { name: 'Send 1 chosen field' }).click();
  await expect(page.getByText('1 listing is on its way')).toBeVisible();
  await until(
    () => price('oakhand'),
    (now) => now === 1_791,
  );
});
