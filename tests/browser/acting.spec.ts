import { expect, test } from '@playwright/test';
import { publishItems, readyItem, sheet, stateOn } from '../support/items';
import { accountOf, call, control, marketListings, until } from '../support/stack';
import { signedIn } from './steps';

test.beforeEach(({ page }) => signedIn(page));

const liveOn = (id: number, account: number, ms = 60_000) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    ms,
  );
async function live(name: string, part: Record<string, unknown> = {}, quantity = 1) {
  const account = await accountOf(name);
  const item = await readyItem(part, quantity);
  await publishItems([item.id], [account]);
  await liveOn(item.id, account);
  const [there] = await marketListings(name.toLowerCase(), item.sku);
  return { ...item, account, there };
}

test('a link is cut, and made again by hand for what nobody recognises', async ({ page }) => {
  const item = await live('Oakhand');
  // Their listing says another number and another title: nothing is left by which it could be known.
  await control('oakhand', 'change', { listing: item.there?.id, set: { ownNumber: '', name: 'Something nameless' } });
  await page.goto(`/links?account=${item.account}&q=${item.sku}`);
  await page.getByRole('checkbox', { name: `Choose the link of ${item.sku} on Oakhand` }).check();
  await page.getByRole('button', { name: 'Cut 1 link, leave the listings there' }).click();
  await expect(page.getByText('1 cut.')).toBeVisible();
  expect((await marketListings('oakhand')).find((one) => one.id === item.there?.id)?.state).toBe('live');
  await page.getByRole('button', { name: 'What on Oakhand has no link?' }).click();
  await page.getByRole('button', { name: `Choose the item of ${item.there?.id}` }).click();
  await page.getByRole('textbox', { name: 'Search the inventory' }).fill(item.sku);
  await page
    .getByRole('list', { name: 'Items found' })
    .getByRole('button', { name: new RegExp(item.sku) })
    .click();
  await expect(page.getByText(`${item.there?.id} is linked`)).toBeVisible();
  const column = (await sheet(item.id)).columns.find((one) => one.accountId === item.account);
  expect(column?.url).toContain(String(item.there?.id));
});

test('chosen items are copied to another marketplace with the version of the first as the model', async ({ page }) => {
  const item = await live('Hallowick');
  await call('PUT', `/items/${item.id}/listings/${item.account}`, { field: 'title', value: `Model’s own ${item.sku}` });
  await page.goto(`/?q=${item.sku}`);
  await page.getByRole('checkbox', { name: `Choose ${item.sku}` }).check();
  await page.getByRole('toolbar', { name: 'Chosen items' }).getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByRole('heading', { name: 'Copy what was chosen' })).toBeVisible();
  await page.getByRole('combobox', { name: 'From' }).selectOption(String(item.account));
  const shopfront = await accountOf('Shopfront');
  await page.getByRole('combobox', { name: 'To' }).selectOption(String(shopfront));
  await page.getByRole('combobox', { name: 'As' }).selectOption('live');
  await page.getByRole('button', { name: 'Copy 1 listing' }).click();
  await liveOn(item.id, shopfront);
  expect((await marketListings('shopfront', item.sku))[0]?.summary.title).toBe(`Model’s own ${item.sku}`);
});

test('under Attention a refusal says why, leads to the field, and is sent again after the mend', async ({ page }) => {
  test.setTimeout(120_000);
  const selasar = await accountOf('Selasar');
  const item = await readyItem({ lengthMm: 200, widthMm: 150, heightMm: 120 });
  const reason = `The picture of ${item.sku} shows two things.`;
  await control('selasar', 'reject', { reason, pointer: '/name', times: 1 });
  await publishItems([item.id], [selasar]);
  await until(
    () => stateOn(item.id, selasar),
    (state) => state === 'attention',
  );
  await page.goto(`/outbox?item=${item.id}`);
  await expect(page.getByText(`Refused in their review: ${reason}`)).toBeVisible();
  await page.goto('/attention');
  const cause = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: new RegExp(reason) }) });
  await expect(cause.getByText('To mend it: Change title, and send it again.')).toBeVisible();
  await cause.getByRole('link', { name: 'Mend it' }).click();
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  await expect(title).toBeFocused();
  await title.fill(`Brask K-2 one thing alone ${item.sku}`);
  await page.keyboard.press('Tab');
  await expect(page.locator('[data-save=saved]')).toBeVisible();
  await page.goto('/attention');
  await cause.getByRole('button', { name: 'Send it again' }).click();
  await liveOn(item.id, selasar);
  await expect(cause).toHaveCount(0);
});

test('a run is stopped and let go on', async ({ page }) => {
  const item = await live('Oakhand', {}, 2);
  await call('POST', '/accounts/hold', { accounts: [item.account], stopped: true });
  const edited = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 13_300 } }],
    send: true,
  });
  try {
    await page.goto(`/outbox?run=${edited.body.runId}`);
    await page.getByRole('button', { name: 'Stop the 1 that wait' }).click();
    // The list of runs beside it says so, too, as soon as it is read again.
    await expect(page.getByText('of 1 sent, 1 stopped')).toBeVisible();
  } finally {
    // Whatever was seen: what comes after needs the account.
    await call('POST', '/accounts/hold', { accounts: [item.account], stopped: false });
  }
  await page.getByRole('button', { name: 'Let 1 go on' }).click();
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.price === 13_300,
  );
});

test('published as drafts, and at a time', async ({ page }) => {
  test.setTimeout(180_000);
  const item = await readyItem();
  const account = await accountOf('Oakhand');
  await page.goto(`/publish?ids=${item.id}&accounts=${account}`);
  await page.getByRole('combobox', { name: 'How' }).selectOption('As drafts');
  await page.getByRole('button', { name: 'Keep 1 listing as a draft' }).click();
  await expect(page).toHaveURL(/stage=drafts/);
  expect(await stateOn(item.id, account)).toBe('draft');
  await page.goto(`/publish?ids=${item.id}&accounts=${account}`);
  await page.getByRole('combobox', { name: 'How' }).selectOption('At a time');
  const soon = new Date(Date.now() + 70_000);
  const local = new Date(soon.getTime() - soon.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  await page.getByLabel('When').fill(local);
  await page.getByRole('button', { name: 'Send 1 listing then' }).click();
  await expect(page).toHaveURL(/outbox/);
  // Up to a minute and ten seconds from now, and then it is sent.
  await liveOn(item.id, account, 140_000);
});

test('pace and rules of an account are kept by hand, and a rule settles what they changed', async ({ page }) => {
  const item = await live('Shopfront');
  await page.goto(`/marketplaces/${item.account}`);
  await page.getByLabel('Offered at most').fill('3');
  await page.getByRole('button', { name: 'Keep the pace' }).click();
  await expect(page.getByText('The pace of Shopfront is kept')).toBeVisible();
  await page.getByRole('combobox', { name: 'Field', exact: true }).selectOption('title');
  await page.getByRole('button', { name: 'Put ours back' }).click();
  await expect(page.getByText(/^Title: /)).toBeVisible();
  try {
    await control('shopfront', 'change', { listing: item.there?.id, set: { title: 'What they made of it' } });
    await until(
      () => marketListings('shopfront', item.sku),
      ([one]) => one?.summary.title.startsWith('Brask') === true,
      60_000,
    );
  } finally {
    await page.getByRole('button', { name: 'Remove the rule for title' }).click();
    await page.getByLabel('Offered at most').fill('');
    await page.getByRole('button', { name: 'Keep the pace' }).click();
  }
  await expect(page.getByText('You are asked, under Differences.')).toBeVisible();
});

test('an offer is countered from the item, and accepted from Attention', async ({ page }) => {
  const item = await live('Pippet');
  await control('pippet', 'offer', { listing: item.there?.id, amount: 10_000, words: 'Is 100 all right?' });
  await page.goto(`/items/${item.id}`);
  const here = page.getByRole('region', { name: 'Offers' });
  await expect(here.getByText('Is 100 all right?')).toBeVisible();
  await here.getByRole('button', { name: 'Counter' }).click();
  await here.getByRole('textbox', { name: 'What you would take, EUR' }).fill('120');
  await here.getByRole('button', { name: 'Say it' }).click();
  await expect(here.getByText(/you would take €120.00; the buyer answers/)).toBeVisible();
  await control('pippet', 'offer', { listing: item.there?.id, amount: 11_000, words: `Then ${item.sku} for 110` });
  await page.goto('/attention');
  const offer = page.getByRole('listitem').filter({ hasText: `Then ${item.sku} for 110` });
  await offer.getByRole('button', { name: 'Accept' }).click();
  await until(
    async () => (await sheet(item.id)).item.quantity,
    (quantity) => quantity === 0,
  );
  await expect(offer).toHaveCount(0);
});
