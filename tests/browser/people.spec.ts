import { type Browser, expect, test } from '@playwright/test';
import { readyItem } from '../support/items';
import { password } from '../support/people';
import { call, stack } from '../support/stack';
import { totp } from '../support/totp';
import { signedIn } from './steps';

const fresh = async (browser: Browser) => (await browser.newContext({ baseURL: stack.base })).newPage();

test('somebody is invited, joins by the link, packs without seeing what was paid, and is let go', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  const { id } = await readyItem({ cost: 7_654_321 });
  const name = `Ida ${Date.now()}`;
  const email = `ida-${Date.now()}@grainhouse.example`;
  await signedIn(page);
  await page.goto('/people');
  await page.getByLabel('Whom').fill(name);
  await page.getByRole('region', { name: 'Invite somebody' }).getByRole('combobox').selectOption('Packer');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = await page.getByLabel(`Link for ${name}`).first().inputValue();
  await expect(page.getByLabel('Open invitations').getByText(name).first()).toBeVisible();

  const theirs = await fresh(browser);
  await theirs.goto(link);
  await expect(theirs.getByRole('heading', { name: `Join the shop, ${name}` })).toBeVisible();
  await theirs.getByLabel('Your name').fill(name);
  await theirs.getByLabel('E-mail address').fill('owner@grainhouse.example');
  await theirs.getByLabel(/^Password/).fill(password);
  await theirs.keyboard.press('Enter');
  await expect(theirs.getByText('Somebody here has this e-mail address already')).toBeVisible();
  await theirs.getByLabel('E-mail address').fill(email);
  await theirs.keyboard.press('Enter');
  await expect(theirs.getByRole('heading', { name: 'Inventory' })).toBeVisible();
  await expect(theirs.getByRole('navigation', { name: 'Stages of the work' }).getByText('Ready')).toBeVisible();
  await expect(theirs.getByText('Attention')).toHaveCount(0);
  await theirs.goto(`/items/${id}`);
  await expect(theirs.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await expect(theirs.getByText('What is left')).toHaveCount(0);
  await expect(theirs.locator('#row-cost')).toHaveCount(0);
  expect(await theirs.content()).not.toContain('76543');
  await theirs.goto('/sales');
  await expect(theirs.getByText('A packer cannot do this').first()).toBeVisible();
  await theirs.goto(link);
  await expect(theirs.getByRole('heading', { name: 'This link opens nothing' })).toBeVisible();

  await page.reload();
  const row = page.getByRole('row').filter({ hasText: email });
  await row.getByRole('combobox').selectOption('Seller');
  await expect(page.getByText(`${name} is seller now, was packer`)).toBeVisible();
  await theirs.goto('/sales');
  await expect(theirs.getByRole('heading', { name: 'Sales' })).toBeVisible();
  page.once('dialog', (asked) => void asked.accept());
  await row.getByRole('button', { name: 'Let go' }).click();
  await expect(row).toHaveCount(0);
  await theirs.goto('/sales');
  await expect(theirs).toHaveURL(/sign-in/);
  await theirs.context().close();
});

test('a second step is turned on with a phone, asked for when signing in, and turned off; a token is made and ended', async ({
  browser,
}) => {
  const email = `vera-${Date.now()}@grainhouse.example`;
  const { body } = await call<{ link: string }>('POST', '/people/invite', { role: 'seller', forWhom: 'Vera' });
  const page = await fresh(browser);
  await page.goto(body.link);
  await page.getByLabel('Your name').fill('Vera');
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel(/^Password/).fill(password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Inventory' })).toBeVisible();
  await page.getByRole('link', { name: /^Vera: / }).click();
  const step = page.getByRole('region', { name: 'Second step' });
  await step.getByLabel('Your password').fill('wrong-password');
  await page.keyboard.press('Enter');
  await expect(step.getByText('The password is wrong')).toBeVisible();
  await step.getByLabel('Your password').fill(password);
  await page.keyboard.press('Enter');
  await expect(step.getByRole('img')).toBeVisible();
  const secret = (await step.getByText(/^[A-Z2-7]{16,}=*$/).textContent()) ?? '';
  await step.getByLabel('The code that it shows now').fill('000000');
  await page.keyboard.press('Enter');
  await expect(step.getByText(/The code is wrong/)).toBeVisible();
  await step.getByLabel('The code that it shows now').fill(totp(secret));
  await page.keyboard.press('Enter');
  await expect(step.getByText(/^On: /)).toBeVisible();

  await page.getByRole('button', { name: /^Sign out Vera/ }).click();
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.keyboard.press('Enter');
  await page.getByLabel('Code').fill(totp(secret));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Inventory' })).toBeVisible();
  await page.goto('/you');
  const programs = page.getByRole('region', { name: 'Programs' });
  await programs.getByLabel('What it is for').fill('scales');
  await programs.getByRole('button', { name: 'Make a token' }).click();
  await expect(programs.getByLabel('The token')).toHaveValue(/^net_/);
  page.once('dialog', (asked) => void asked.accept());
  await programs.getByRole('button', { name: 'End scales' }).click();
  await expect(programs.getByText('No program has a token yet.')).toBeVisible();
  await step.getByLabel('Your password').fill(password);
  await page.keyboard.press('Enter');
  await expect(step.getByText(/^Off\. /)).toBeVisible();
  await page.context().close();
});
