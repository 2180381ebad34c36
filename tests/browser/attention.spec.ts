import { expect, test } from '@playwright/test';
import { signedIn } from './steps';

test('what stands for long is put off with a word why, brought back, and changed for all in the workbench', async ({
  page,
}) => {
  await signedIn(page);
  await page.goto('/attention');
  const needs = page.getByRole('region', { name: 'What should be looked at' });
  const row = needs.locator('[data-need="unsold"]');
  await expect(row.getByRole('heading', { name: 'Nothing of it was sold for 180 days' })).toBeVisible();
  await row.getByRole('button', { name: 'Later' }).click();
  await row.getByLabel('Put off for').selectOption('3 days');
  await row.getByLabel('Why').fill('after the fair');
  await page.keyboard.press('Enter');
  await expect(row).toHaveCount(0);
  await needs.getByText('1 put off').click();
  await expect(needs.getByText(/after the fair/)).toBeVisible();
  await needs.getByRole('button', { name: 'Bring back' }).click();
  await expect(row).toBeVisible();
  const many = Number((await row.getByRole('link', { name: /^Show/ }).textContent())?.replace(/\D/g, ''));
  await row.getByRole('button', { name: /^Change all/ }).click();
  await expect(page).toHaveURL(/workbench/);
  await expect(page.getByPlaceholder('-5')).toHaveValue('-10');
  await expect(page.getByText(new RegExp(`${many} items?`)).first()).toBeVisible();
});

test('two causes of many items: each leads to its own, also when one comes back to it', async ({ page }) => {
  await signedIn(page);
  const cause = (message: string, from: number) => ({
    kind: 'failed',
    accountId: 1,
    accountName: 'Hallowick',
    message,
    fix: null,
    errorCode: 'invalid',
    field: null,
    mayPass: false,
    count: 400,
    itemIds: Array.from({ length: 400 }, (_, at) => from + at),
    items: [],
    violation: null,
  });
  await page.route('**/api/v1/causes', (route) =>
    route.fulfill({ json: { causes: [cause('Too few words', 1), cause('Too many words', 100_001)] } }),
  );
  /** The items that the workbench asks about. */
  const asked = () =>
    page
      .waitForRequest((request) => request.method() === 'POST' && /"ids":\[\d+/.test(request.postData() ?? ''))
      .then((request) => Number(/"ids":\[(\d+)/.exec(request.postData() ?? '')?.[1]));
  const way = (message: string) =>
    page
      .getByRole('listitem')
      .filter({ hasText: message })
      .getByRole('link', { name: /^Change all 400/ });
  await page.goto('/attention');
  const addresses: string[] = [];
  for (const [message, first] of [
    ['Too few words', 1],
    ['Too many words', 100_001],
  ] as const) {
    const items = asked();
    await way(message).click();
    expect(await items).toBe(first);
    addresses.push(page.url());
    await page.goto('/attention');
  }
  const again = asked();
  await page.goto(addresses[0] ?? '');
  expect(await again).toBe(1);
  // In another tab as well.
  await page.goto('/attention');
  const [other] = await Promise.all([
    page.context().waitForEvent('page'),
    way('Too few words').click({ modifiers: ['ControlOrMeta'] }),
  ]);
  await expect(other).toHaveURL(addresses[0] ?? '');
  await expect(other.getByText('Choose items first')).toHaveCount(0);
  await expect(other.getByRole('table', { name: 'In common' })).toBeVisible();
});
