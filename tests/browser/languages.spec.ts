import { randomUUID } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { accountOf, call } from '../support/stack';
import { signedIn } from './steps';

test('an account speaks another language: its words are written once, and proposed beside the sheet', async ({
  page,
}) => {
  const language = `Velsk ${randomUUID().slice(0, 4)}`;
  const selasar = await accountOf('Selasar');
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/marketplaces/${selasar}`);
  const manner = page.getByRole('form', { name: 'Prices and wording here' });
  await manner.getByLabel('Texts here are in another language').fill(language);
  await manner.getByRole('button', { name: 'Keep prices and wording' }).click();
  await expect(page.getByText('is saved; its listings are computed anew')).toBeVisible();
  await page.goto('/settings');
  const words = page.getByRole('region', { name: 'Words in other languages' });
  await words.getByLabel('Language').selectOption({ label: `${language} (0)` });
  await words.getByLabel('One a line: yours = theirs').fill('test camera = camera brawf\nno sign here');
  await words.getByRole('button', { name: 'Keep the words' }).click();
  await expect(words.getByRole('alert')).toContainText('Line 2');
  await words.getByLabel('One a line: yours = theirs').fill('test camera = camera brawf');
  await words.getByRole('button', { name: 'Keep the words' }).click();
  await expect(page.getByText('Kept; texts that were sent stay as they are')).toBeVisible();
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title' }).first()).toHaveValue(/test camera/);
  await page.keyboard.press('Alt+w');
  await page.getByLabel('Marketplace looked at').selectOption(String(selasar));
  const proposal = page.getByRole('region', { name: 'Proposal for Title' }).first();
  await expect(proposal).toContainText('camera brawf');
  await expect(proposal).toContainText('by your own terms, word for word');
  await proposal.getByRole('button', { name: 'Take all of it' }).click();
  await expect(proposal).toContainText(/Now: .*camera brawf/);
  await call('PATCH', `/accounts/${selasar}`, { language: '' });
});
