import { expect, type Page, test } from '@playwright/test';
import { sheet } from '../support/items';
import { listOnTwo } from '../support/listed';
import { call, control, marketListings } from '../support/stack';
import { signedIn } from './steps';

const run = Math.floor(Date.now() / 1_000) % 100_000;
const tag = `qz${run.toString(36)}`;

async function chooseAll(page: Page, account: string, count: number): Promise<void> {
  await page.getByLabel('Account', { exact: true }).selectOption({ label: account });
  await page
    .getByRole('button', { name: /^Read (again|what is there)$/ })
    .first()
    .click();
  await page.getByLabel('Words, stock number or their number').fill(tag);
  await expect(page.getByRole('checkbox', { name: new RegExp(tag) })).toHaveCount(count);
  await page.getByRole('button', { name: 'Choose all that are not in yet' }).click();
}

test('sixty from two marketplaces: five looked through one by one, the rest at once, three unsure pairs decided by a key', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const { listed, numbers } = await listOnTwo(tag, { things: 30, unsure: 3, run });
  expect(listed).toHaveLength(60);
  const ours = (market: string, number: string) =>
    listed.some((one, at) => one.market === market && numbers[at] === number);
  const shown = async () =>
    (
      await Promise.all(
        ['hallowick', 'shopfront'].map(async (market) => ({ market, all: await marketListings(market) })),
      )
    )
      .flatMap(({ market, all }) => all.filter((one) => ours(market, one.id)))
      .map((one) => JSON.stringify(one));
  const before = await shown();
  await signedIn(page);

  // Five of them one by one.
  await page.goto('/bring-in');
  await page.getByRole('button', { name: /^Hallowick / }).click();
  await page
    .getByRole('button', { name: /^Read (again|what is there)$/ })
    .first()
    .click();
  await page.getByLabel('Words, stock number or their number').fill(tag);
  const boxes = page.getByRole('checkbox', { name: new RegExp(tag) });
  await expect(boxes).toHaveCount(30);
  // The newest stand first; the unsure ones were listed last.
  for (let at = 10; at < 15; at++) await boxes.nth(at).check();
  await expect(page.getByText('5 listings chosen on Hallowick')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in and look through one by one' }).click();
  await page.getByRole('link', { name: 'Look through 5 one by one' }).click();
  const strip = page.getByRole('region', { name: 'Look through' });
  await expect(strip).toContainText('1 of 5, 0 looked through');
  await expect(strip).toContainText('Not known there: Cost, Place');
  const items: number[] = [];
  for (let at = 0; at < 5; at++) {
    await expect(strip).toContainText(`${at + 1} of 5, ${at} looked through`);
    items.push(Number(/items\/(\d+)/.exec(page.url())?.[1]));
    const cost = page.getByRole('textbox', { name: 'Cost in EUR' });
    if (at === 0) {
      await cost.fill('12.50');
      await page.getByLabel('Place', { exact: true }).fill('Q7');
      await page.getByLabel('Place', { exact: true }).press('Tab');
      // What was typed for one is taken over into those that wait.
      await strip.getByRole('button', { name: 'Place also for 4 without' }).click();
      await expect(page.getByText('Place taken over into 4 more')).toBeVisible();
    } else {
      await expect(strip).toContainText('Not known there: Cost');
      await expect(strip).not.toContainText('Place');
      // The first thing that is missing has the focus.
      await expect(cost).toBeFocused();
      await page.keyboard.type(`${10 + at}`);
    }
    await page.keyboard.press('Control+Enter');
  }
  await expect(page).toHaveURL(/bring-in\/\d+$/);
  await expect(page.getByText(/5 listings brought in: 5 new items/)).toBeVisible();
  const stored = await Promise.all(
    items.map(async (id) => (await call<{ item: { cost: number } }>('GET', `/items/${id}`)).body.item.cost),
  );
  expect(stored).toEqual([1_250, 1_100, 1_200, 1_300, 1_400]);
  expect((await sheet(items[4] ?? 0)).item.location).toBe('Q7');

  // The rest of both at once.
  await page.getByRole('link', { name: 'Bring in more' }).click();
  await chooseAll(page, 'Hallowick', 25);
  await chooseAll(page, 'Shopfront', 30);
  await expect(page.getByText('55 listings chosen on Hallowick, Shopfront')).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 55', exact: true }).click();
  await expect(page.getByText('3 pairs to decide')).toBeVisible({ timeout: 60_000 });
  // Of five the other half was brought in before: linked further, nothing made twice.
  await expect(page.getByText(/49 listings brought in: 22 new items, 5 items of yours linked further/)).toBeVisible();
  const pairs = page.getByRole('list', { name: 'All pairs' });
  await page.keyboard.press('s');
  await expect(pairs.getByText('the same thing')).toHaveCount(1);
  await page.keyboard.press('s');
  await expect(pairs.getByText('the same thing')).toHaveCount(2);
  await page.keyboard.press('d');
  await expect(pairs.getByText('two things')).toHaveCount(1);
  await page.getByRole('button', { name: 'Bring in what is decided' }).click();
  await expect(page.getByText(/55 listings brought in: 26 new items, 5 items of yours linked further/)).toBeVisible({
    timeout: 30_000,
  });

  // Nothing of it was sent, and nothing there is another than before.
  expect((await shown()).sort()).toEqual(before.sort());
  await page.getByRole('link', { name: 'Bring in more' }).click();
  await page.getByRole('button', { name: /^Shopfront / }).click();
  await page.getByLabel('Words, stock number or their number').fill(tag);
  await expect(
    page.getByText(/Everything that was found there is in already|Nothing there is like this/),
  ).toBeVisible();
  await page.getByLabel('Which of them').selectOption('In already');
  await expect(page.getByText(/^In already:/)).toHaveCount(30);
});

test('a marketplace that does not answer is waited for; reading is stopped, and begun anew', async ({ page }) => {
  await signedIn(page);
  await control('shopfront', 'fault', { kind: 'error-500', times: 200, method: 'GET', path: '/products' });
  try {
    await page.goto('/bring-in');
    await page.getByRole('button', { name: /^Shopfront / }).click();
    await page
      .getByRole('button', { name: /^Read (again|what is there)$/ })
      .first()
      .click();
    await expect(page.getByText(/^Reading Shopfront: 0 by now – .*it is asked again in/)).toBeVisible();
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await expect(page.getByText(/^Reading Shopfront/)).toHaveCount(0);
  } finally {
    await control('shopfront', 'calm');
  }
  const again = page.getByRole('button', { name: /^Read (again|what is there)$/ }).first();
  await again.click();
  await expect(page.getByText(/found, .* in already; read/)).toBeVisible();
  await expect(page.getByText(/^Reading Shopfront/)).toHaveCount(0);
});
