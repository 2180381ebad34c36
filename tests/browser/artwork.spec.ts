import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { signedIn } from './steps';

let count = 0;
async function drawing(colour: string): Promise<Buffer> {
  const dot = `<circle cx="200" cy="200" r="${120 + ++count}" fill="${colour}"/>`;
  return sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400">${dot}</svg>`))
    .png()
    .withExif({ IFD0: { Software: `drawing ${Date.now()} ${count}` } })
    .toBuffer();
}

test('pictures are dropped by the dozen, looked at on each ground, and corrected by hand', async ({ page }) => {
  await signedIn(page);
  await page.goto('/artwork');
  const name = `Moon ${Date.now()}`;
  await page.getByLabel('Pictures of artwork').setInputFiles([
    { name: `${name}.png`, mimeType: 'image/png', buffer: await drawing('#fdfdfd') },
    { name: `${name} dark.png`, mimeType: 'image/png', buffer: await drawing('#0a0a0a') },
    { name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') },
  ]);
  await expect(page.getByText('2 pictures taken')).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: '1 picture not taken' })).toBeVisible();
  const card = page.getByRole('listitem').filter({ has: page.getByRole('link', { name, exact: true }) });
  const white = card.getByRole('button', { name: /^White/ });
  await expect(white).toHaveAttribute('aria-pressed', 'false');
  await expect(white).toHaveAttribute('title', /Light on light/);
  await expect(card.getByRole('button', { name: /^Black/ })).toHaveAttribute('aria-pressed', 'true');
  await white.focus();
  await page.keyboard.press('Enter');
  await expect(white).toHaveAttribute('aria-pressed', 'true');
  await expect(white).toHaveAttribute('title', /Corrected by hand/);
  await page.getByRole('button', { name: 'Black', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Black', exact: true })).toHaveAttribute('aria-pressed', 'true');
  // On a product, placed by numbers; too small a file is told.
  await page.getByLabel('Shown as').selectOption('Mug, Wallfolk');
  await card.getByRole('button', { name: `Place ${name} on Mug` }).click();
  const placing = page.getByRole('dialog', { name: `${name} on Mug` });
  await placing.getByLabel('Size, %').fill('160');
  await expect(placing.getByRole('alert')).toContainText('outside');
  await placing.getByLabel('Size, %').fill('60');
  await placing.getByRole('button', { name: 'Keep it' }).click();
  await expect(placing).toHaveCount(0);
  await page.getByLabel('Shown as').selectOption('Canvas 60 × 80 cm, Wallfolk');
  await expect(card.getByText(/dots an inch: good up to/)).toBeVisible();
  await page.getByLabel('Shown as').selectOption('the picture alone');
  await card.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Title' }).first()).toHaveValue(name);
});
