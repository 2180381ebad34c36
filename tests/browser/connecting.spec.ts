import { expect, test } from '@playwright/test';
import { control, stack } from '../support/stack';
import { signedIn } from './steps';

test('an account is connected on the marketplace’s own consent page, and by a key', async ({ page }) => {
  const seller = `second-${Date.now()}`;
  await control('oakhand', 'sellers', { name: seller, password: 'shop-password' });
  const { apiKey } = await control('pippet', 'sellers', { name: seller, password: 'shop-password' });
  await signedIn(page);
  await page.goto('/marketplaces');
  await page.getByRole('button', { name: 'Connect Oakhand' }).click();
  await page.getByLabel('Shop name on Oakhand').fill(seller);
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in and allow' }).click();
  await expect(page.getByRole('alert')).toHaveText('Name or password is wrong');
  await page.getByLabel('Shop name on Oakhand').fill(seller);
  await page.getByLabel('Password').fill('shop-password');
  await page.getByRole('button', { name: 'Sign in and allow' }).click();
  await expect(page.getByText('is connected. Set its defaults')).toBeVisible();
  const card = page.getByRole('region', { name: new RegExp(`Oakhand.*${seller}`) });
  await card.getByLabel('Return profile').selectOption({ label: 'No returns' });
  await card.getByRole('checkbox', { name: 'New items are meant for this account' }).uncheck();
  await card.getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByText(/is saved$/)).toBeVisible();

  await page.getByRole('button', { name: 'Connect Pippet' }).click();
  await page.getByLabel('API key').fill('not-a-valid-key');
  await page.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'does not accept' })).toBeVisible();
  await page.getByLabel('API key').fill(String(apiKey));
  await page.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(page.getByRole('region', { name: `Pippet ${seller}` })).toBeVisible();
  await page.goto('/people');
  await expect(page.getByText(`Connected Pippet ${seller}`)).toBeVisible();
});

test('refusing access on the consent page is told', async ({ page }) => {
  await signedIn(page);
  await page.goto('/marketplaces');
  await page.getByRole('button', { name: 'Connect Hallowick' }).click();
  await page.getByRole('button', { name: 'Do not allow' }).click();
  await expect(page).toHaveURL(new RegExp(`^${stack.base}/marketplaces`));
  await expect(page.getByRole('alert').filter({ hasText: 'was not allowed' })).toBeVisible();
});

test('the marketplaces’ control room is there for people, too', async ({ page }) => {
  await page.goto(`${stack.markets}/control`);
  // A listing is chosen by its picture, and every deed is a button that says what it does.
  await page.getByRole('link', { name: 'Pippet' }).click();
  await expect(page.getByRole('heading', { name: 'Pippet', exact: true })).toBeVisible();
  const listing = page
    .locator('details')
    .filter({ has: page.locator('img') })
    .first();
  await listing.locator('summary').click();
  await listing.getByRole('button', { name: 'Pause it there' }).click();
  await expect(page.getByRole('heading', { name: 'Done' })).toBeVisible();
  await page.getByRole('link', { name: 'Back' }).click();
  await page.getByRole('link', { name: 'Pippet' }).click();
  const paused = page.locator('details').filter({ hasText: 'paused' }).first();
  await paused.locator('summary').click();
  for (const name of ['Buy as a buyer', 'Offer less as a buyer', 'Take it down', 'Orders, all at once'])
    await expect(paused.getByRole('button', { name })).toBeVisible();
  await paused.getByRole('button', { name: 'Let it go on' }).click();
  await expect(page.getByText('"state": "live"')).toBeVisible();
});
