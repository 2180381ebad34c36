import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { halfPacked, newConsignment } from '../support/consignments';
import { dropped, small, tied } from '../support/drops';
import { sendFile } from '../support/files';
import { newBatch, scan, settingsWith, strangeCode } from '../support/intake';
import { readyItem } from '../support/items';
import { newKit, put } from '../support/kits';
import { askingGathering } from '../support/listed';
import { accountOf, call } from '../support/stack';
import { signedIn, signIn } from './steps';

/** @param rules only these, where everything else was looked at before */
async function nothingSerious(page: Page, rules?: string[], inside?: string): Promise<void> {
  const axe = inside ? new AxeBuilder({ page }).include(inside) : new AxeBuilder({ page });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  const serious = violations.filter((one) => one.impact === 'serious' || one.impact === 'critical');
  expect(serious.map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual(
    [],
  );
}

test('the sign-in page', async ({ page }) => {
  await page.goto('/sign-in');
  await expect(page.getByRole('heading')).toBeVisible();
  await nothingSerious(page);
});

test('every page behind the sign-in, by day and by night', async ({ page }) => {
  test.setTimeout(900_000);
  const broke: string[] = [];
  page.context().on('weberror', (one) => broke.push(`${one.page()?.url()}: ${one.error().message}`));
  // Rows are alike: a low window shows as many of them as are needed.
  await page.setViewportSize({ width: 1280, height: 420 });
  await signIn(page);
  // Columns are alike, too: a sheet shows three of them here.
  const { body: shops } = await call<{ accounts: { id: number }[] }>('GET', '/accounts');
  await page.evaluate(
    (hidden) => localStorage.setItem('netting.hidden-columns', JSON.stringify(hidden)),
    shops.accounts.slice(3).map((one) => one.id),
  );
  const { body } = await call<{ items: { id: number }[] }>('GET', '/items?stage=attention');
  const few = await call<{ items: { id: number; sku: string }[] }>('GET', '/items?limit=4');
  const ids = few.body.items.map((item) => item.id).join(',');
  const selection = { kind: 'items', ids: few.body.items.map((item) => item.id) };
  const steps = [{ field: 'notes', do: { verb: 'set', value: `Looked at ${Date.now()}` } }];
  const { runId } = (await call<{ runId: number }>('POST', '/edits', { selection, steps, send: false })).body;
  const routine = {
    name: `Looked at ${runId}`,
    filter: { field: 'brand', op: 'is', value: 'Brask' },
    steps,
    send: false,
  };
  await call('POST', '/routines', routine);
  const { id: fileId } = await sendFile(
    'looked-at.csv',
    `Item,Title,Price\n${body.items[0]?.id},Another title,12.50\n`,
  );
  await call('POST', `/imports/${fileId}/check`, {});
  const gatheringId = await askingGathering();
  const { drop } = await dropped([
    { path: `${few.body.items[0]?.sku}_1.jpg`, bytes: await small(9_001) },
    { path: 'IMG_1.jpg', bytes: await small(9_002) },
  ]);
  await tied(drop);
  const badgeStep = [
    { field: 'photos', where: { on: 'item' }, do: { verb: 'photo-turn', degrees: 90, which: 'first' } },
  ];
  const batch = await newBatch({ name: 'Looked at', settings: settingsWith({ grade: 'good', leastNet: 100 }) });
  for (const text of [strangeCode(77_000_001), '12345']) await scan(batch, text, { grade: 'good', asksPrice: true });
  const kit = await newKit({ name: 'Taken apart and looked at' });
  await put(kit, { text: '2 x tray\ntray (spare)\nclip' });
  const pages: [string, string][] = [
    ['/', 'Inventory'],
    ['/?stage=ready&priceMin=1000', 'Inventory'],
    [`/items/${body.items[0]?.id ?? few.body.items[0]?.id}`, ''],
    [`/workbench?ids=${ids}`, 'Workbench'],
    [`/workbench?ids=${ids}&steps=${encodeURIComponent(JSON.stringify(badgeStep))}`, 'Workbench'],
    ['/photos', 'Photos'],
    [`/photos/drops/${drop}`, 'Photos to items'],
    [`/publish?ids=${ids}`, 'Publish'],
    ['/workbench', 'Choose items first'],
    ['/outbox', 'Outbox'],
    ['/attention', 'Attention'],
    ['/sales', 'Sales'],
    ['/marketplaces', 'Marketplaces'],
    ['/marketplaces/1', 'Hallowick'],
    [`/items/${few.body.items[0]?.id}/preview`, 'What each marketplace gets'],
    ['/templates', 'Templates'],
    ['/templates?template=1', 'Templates'],
    ['/postage', 'Postage and rates'],
    ['/settings', 'Settings'],
    ['/differences', 'Differences'],
    ['/renewals?account=9', 'Renewal'],
    ['/links?account=12', 'Links'],
    ['/copies', 'Copy a shop'],
    ['/changed', 'Changed'],
    ['/routines', 'Routines'],
    ['/files', 'Files'],
    ['/batches', 'Batches'],
    [`/batches/${batch}`, 'Looked at'],
    ['/consignments', 'Consignments'],
    [`/consignments/${await newConsignment({ name: 'Chosen and looked at' })}`, 'Chosen and looked at'],
    [`/consignments/${await halfPacked('Packed and looked at')}`, 'Packed and looked at'],
    ['/kits', 'Sets'],
    ['/artwork', 'Artwork'],
    ['/artwork/gallery', 'Artwork'],
    ['/artwork/earnings', 'Artwork'],
    ['/people', 'People'],
    ['/you', 'You'],
    ['/insights', 'Insights'],
    ['/insights?view=stock', 'Insights'],
    ['/insights?view=effects', 'Insights'],
    [`/kits/${kit}`, 'Taken apart and looked at'],
    [`/labels?ids=${ids}`, 'Labels'],
    ['/bring-in', 'Bring in'],
    [`/bring-in?account=${await accountOf('Hallowick')}`, 'Bring in'],
    [`/bring-in/${gatheringId}`, '2 from Hallowick, Shopfront'],
    [`/files/${fileId}`, 'looked-at.csv'],
    [`/runs/${runId}`, 'What a change did'],
  ];
  // The night changes colours and nothing else: there the colours alone are looked at, on pages that hold all of them.
  const byNight = pages.filter(([path]) =>
    /^\/($|items\/\d+$|workbench\?|publish|outbox|attention|renewals|differences|marketplaces\/|templates\?)/.test(
      path,
    ),
  );
  const look = async (tab: Page, colorScheme: 'light' | 'dark', path: string, heading: string, rules?: string[]) => {
    await tab.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    await tab.goto(path);
    await expect(
      heading
        ? tab.getByRole('heading', { name: heading, exact: true })
        : tab.getByRole('region', { name: 'Fields and marketplaces' }),
    ).toBeVisible();
    if (path.includes('steps=')) await expect(tab.getByRole('list', { name: 'Contact sheet' })).toBeVisible();
    else if (path.startsWith('/workbench?')) await tab.getByPlaceholder('-5').fill('-5');
    await expect(tab.getByText(/^Loading/)).toHaveCount(0);
    await test.step(`${path}, ${colorScheme}`, () => nothingSerious(tab, rules));
  };
  const all = [
    ...pages.map(
      ([path, heading]) =>
        (tab: Page) =>
          look(tab, 'light', path, heading),
    ),
    ...byNight.map(
      ([path, heading]) =>
        (tab: Page) =>
          look(tab, 'dark', path, heading, ['color-contrast']),
    ),
  ].values();
  // One browser, one sign-in, two tabs side by side.
  const second = await page.context().newPage();
  await second.setViewportSize({ width: 1280, height: 420 });
  const lane = async (tab: Page) => {
    for (const next of all) await next(tab);
  };
  await Promise.all([lane(page), lane(second)]);
  expect(broke).toEqual([]);
});

test('the launcher and the list of shortcuts', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog')).toBeVisible();
  await nothingSerious(page, undefined, '[role=dialog]');
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
  await nothingSerious(page, undefined, '[role=dialog]');
});

test('what opens on a sheet: the table of variations, beside it, the desk, an editor, new from', async ({ page }) => {
  test.setTimeout(240_000);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
  const variations = ['Black', 'Tan'].map((value) => ({
    values: [value],
    on: true,
    sku: '',
    quantity: 2,
    price: null,
    barcode: '',
  }));
  const { id } = await readyItem({ axes, variations });
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const title = page.getByRole('textbox', { name: 'Title' });
  await expect(title).toBeVisible();
  await page.keyboard.press('Alt+v');
  await expect(page.getByRole('grid', { name: 'Combinations' })).toBeVisible();
  await nothingSerious(page, undefined, 'section[aria-label=Variations]');
  await page.keyboard.press('Alt+s');
  for (const key of ['Alt+p', 'Alt+e', 'Alt+w', 'Alt+b']) {
    await page.keyboard.press(key);
    await expect(page.locator('aside')).toBeVisible();
    await expect(page.getByText(/^Loading/)).toHaveCount(0);
    await nothingSerious(page, undefined, 'aside');
  }
  await page.getByRole('button', { name: /^Category on Hallowick/ }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await nothingSerious(page, undefined, '[role=dialog]');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Work on photo 1' }).click();
  await expect(page.getByRole('img', { name: 'The result' })).toBeVisible();
  await nothingSerious(page, undefined, 'dialog');
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Shift+N');
  await expect(page.getByPlaceholder(/barcode, ISBN/)).toBeFocused();
  await nothingSerious(page, undefined, 'dialog');
});

test('what opens on sets that are taken apart: contents, prices, whole, stock, steps, drawers, pieces', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const { kits } = (await call<{ kits: { id: number; name: string }[] }>('GET', '/kits?limit=100')).body;
  const demo = kits.find((one) => one.name === 'Three outfits from Aldern');
  await signedIn(page);
  await page.goto(`/kits/${demo?.id}`);
  const lots = page.getByRole('table', { name: 'Lots' });
  await expect(lots.getByRole('row').nth(3)).toBeVisible();
  const looked = async () => {
    await expect(page.getByRole('dialog')).toBeVisible();
    await expect(page.getByText(/^Loading/)).toHaveCount(0);
    await nothingSerious(page, undefined, 'dialog');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  for (const name of ['Add contents', 'Prices', 'In parts or whole', /^Add \d+ to stock/]) {
    await page.getByRole('button', { name }).first().click();
    await looked();
  }
  await lots.getByRole('checkbox').nth(1).check();
  const toolbar = page.getByRole('toolbar', { name: 'Chosen lots' });
  for (const name of ['Change', 'Drawers']) {
    await toolbar.getByRole('button', { name, exact: true }).click();
    await looked();
  }
  await lots
    .getByRole('button', { name: /Developing tank/ })
    .first()
    .click();
  await looked();
  await nothingSerious(page);
});
