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
