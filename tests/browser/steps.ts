import { type Cookie, expect, type Page } from '@playwright/test';
import { countHands } from './hands';

export const owner = { email: 'owner@grainhouse.example', password: 'harbour-light-35' };

export async function signIn(page: Page): Promise<void> {
  await countHands(page);
  await page.goto('/sign-in');
  await page.getByLabel('E-mail address').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('grid', { name: 'Inventory' })).toBeVisible();
}

let cookies: Cookie[] | null = null;

/** Signed in already, as after an earlier visit; the page itself is opened by what comes next. */
export async function signedIn(page: Page): Promise<void> {
  await countHands(page);
  const context = page.context();
  if (!cookies) {
    await signIn(page);
    cookies = await context.cookies();
  }
  await context.addCookies(cookies);
}

export const saved = (page: Page) => expect(page.locator('[data-save=saved]')).toBeVisible();

/** The state of a knot in the head of an item sheet's column. */
export const knot = (page: Page, account: string, state: string) =>
  page.getByRole('columnheader', { name: account }).getByRole('img', { name: `${account}: ${state}`, exact: true });
