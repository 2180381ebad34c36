import { expect, type Page, test } from '@playwright/test';
import { jpeg, publishItems, readyItem, sheet, upload } from '../support/items';
import { accountOf, call, until } from '../support/stack';
import { focused } from './hand';
import { knot, saved, signedIn, signIn } from './steps';

const open = async (page: Page, id: number) => {
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
};
type Field = { field: string; value: unknown; origin: string };
const fieldOn = async (id: number, account: string, field: string) => {
  const { columns } = (await call<{ columns: { name: string; fields: Field[] }[] }>('GET', `/items/${id}`)).body;
  return columns.find((one) => one.name === account)?.fields.find((one) => one.field === field);
};

test('by keyboard through the cells: an own title, copied to another marketplace, taken back', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await page.getByRole('textbox', { name: 'Title' }).focus();
  await page.keyboard.press('Alt+ArrowRight');
  expect(await focused(page)).toMatch(/^Title on Hallowick/);
  await page.keyboard.press('Enter');
  const editor = page.getByRole('textbox', { name: 'Title on Hallowick' });
  await expect(editor).toBeFocused();
  await editor.press('Control+a');
  await page.keyboard.type('Own words for one marketplace');
  await page.keyboard.press('Enter');
  await until(
    () => fieldOn(id, 'Hallowick', 'title'),
    (field) => field?.origin === 'override' && field.value === 'Own words for one marketplace',
  );
  await expect(page.getByRole('button', { name: 'Title on Hallowick: Own words for one marketplace' })).toBeFocused();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('ArrowRight');
  expect(await focused(page)).toMatch(/^Title on Oakhand/);
  await page.keyboard.press('Control+v');
  await until(
    () => fieldOn(id, 'Oakhand', 'title'),
    (field) => field?.value === 'Own words for one marketplace',
  );
  await page.keyboard.press('Control+z');
  await until(
    () => fieldOn(id, 'Oakhand', 'title'),
    (field) => field?.origin !== 'override',
  );
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Delete');
  await until(
    () => fieldOn(id, 'Hallowick', 'title'),
    (field) => field?.origin !== 'override',
  );
  await page.keyboard.press('Escape');
  expect(await focused(page)).toBe('Title');
});

test('lists are searched, tags are chips, photos are chosen for one marketplace', async ({ page }) => {
  const { id } = await readyItem();
  await upload(id, await jpeg(1_000, '#224466'));
  await upload(id, await jpeg(1_000, '#446622'));
  await signedIn(page);
  await open(page, id);
  await page.getByRole('button', { name: /^Decade on Oakhand/ }).click();
  await page.getByPlaceholder('Type to search').fill('1960');
  await page.keyboard.press('Enter');
  await until(
    () => fieldOn(id, 'Oakhand', 'extra.decade'),
    (field) => field?.value === '1960s',
  );
  await page.getByRole('button', { name: /^Tags on Oakhand/ }).click();
  await page.getByRole('textbox', { name: 'Tags on Oakhand, separated by commas' }).fill('one tag, other tag,');
  await page.getByRole('button', { name: 'Keep for Oakhand' }).click();
  await until(
    () => fieldOn(id, 'Oakhand', 'tags'),
    (field) => Array.isArray(field?.value) && field.value.includes('other tag'),
  );
  await page.getByRole('button', { name: /^Photos on Hallowick/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Photos on Hallowick' });
  await dialog.getByRole('button', { name: 'Photo at place 1 of 3' }).click();
  await dialog.getByRole('button', { name: 'Photo at place 2 of 2' }).press('ArrowLeft');
  // The same one may stand there twice: as the cover, and at the end.
  await dialog.getByRole('button', { name: 'Photo 3, chosen once: add' }).click();
  await dialog.getByRole('button', { name: 'Keep for Hallowick' }).click();
  const hashes = (await sheet(id)).item.photos.map((photo) => photo.hash);
  await until(
    () => fieldOn(id, 'Hallowick', 'photos'),
    (field) => JSON.stringify(field?.value) === JSON.stringify([hashes[2], hashes[1], hashes[2]]),
  );
});

test('columns are chosen, narrowed to what is missing, left out and modelled on another', async ({ page }) => {
  const { id } = await readyItem({ weightGrams: null });
  const hallowick = await accountOf('Hallowick');
  await call('PUT', `/items/${id}/listings/${hallowick}`, { field: 'title', value: 'The model’s own title' });
  await signedIn(page);
  await open(page, id);
  const head = (name: string) => page.getByRole('columnheader', { name });
  await head('Hallowick')
    .getByRole('button', { name: /missing/ })
    .click();
  await expect(page.getByRole('rowheader', { name: 'Weight' })).toBeVisible();
  await expect(page.getByRole('rowheader', { name: 'Title', exact: true })).toHaveCount(0);
  await head('Hallowick')
    .getByRole('button', { name: /missing/ })
    .click();
  await expect(page.getByRole('rowheader', { name: 'Title', exact: true })).toBeVisible();
  await page.getByLabel('What to do with Oakhand').selectOption({ label: 'Hallowick' });
  await until(
    () => fieldOn(id, 'Oakhand', 'title'),
    (field) => field?.value === 'The model’s own title',
  );
  await page.getByLabel('What to do with Selasar').selectOption({ label: 'Leave the item out here' });
  await expect(head('Selasar')).toHaveCount(0);
  await page.getByText(/\d+ of 12 accounts/).click();
  await page.getByRole('listitem').filter({ hasText: 'Selasar' }).getByRole('button', { name: 'Add here' }).click();
  await expect(head('Selasar')).toBeVisible();
});

test('beside the sheet: a row spread out, a buyer’s view, a price for a net, wording with reasons', async ({
  page,
}) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await page.getByRole('rowheader', { name: 'Title', exact: true }).getByRole('button').click();
  // On every account but the one for artwork, to which no camera belongs.
  await expect(page.getByRole('list', { name: 'Title everywhere' }).getByRole('listitem')).toHaveCount(11);
  await page.keyboard.press('Alt+p');
  await expect(page.getByRole('region', { name: /^What a buyer sees on/ })).toBeVisible();
  await page.keyboard.press('Alt+e');
  await page.getByLabel('Wanted').fill('100');
  await page.getByTitle('Use it on Oakhand').click();
  await until(
    () => fieldOn(id, 'Oakhand', 'price'),
    (field) => field?.origin === 'override' && Number(field.value) > 14_900,
  );
  await page.keyboard.press('Alt+w');
  const proposal = page.getByRole('region', { name: 'Proposal for Title' });
  await expect(proposal.getByText('the brand')).toBeVisible();
  await proposal.getByRole('button', { name: 'Take all of it' }).click();
  await until(
    async () => (await sheet(id)).item.title,
    (title) => /^Brask K-2 SLR/.test(title),
  );
});

test('a live listing is ended from its column, and can be left out then', async ({ page }) => {
  const { id } = await readyItem();
  await publishItems([id], [await accountOf('Oakhand')]);
  await signedIn(page);
  await open(page, id);
  await expect(knot(page, 'Oakhand', 'Live')).toBeVisible();
  await page.getByLabel('What to do with Oakhand').selectOption({ label: 'End this listing' });
  await expect(knot(page, 'Oakhand', 'Ended')).toBeVisible();
  await page.getByLabel('What to do with Oakhand').selectOption({ label: 'Leave the item out here' });
  await expect(page.getByRole('columnheader', { name: 'Oakhand' })).toHaveCount(0);
});

test('a letter in an open list of choices chooses there and is no shortcut', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  const condition = page.getByRole('combobox', { name: 'Condition', exact: true });
  await condition.focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('n');
  await page.keyboard.press('Enter');
  await expect(condition).toHaveValue('new');
  await saved(page);
  expect((await call<{ item: { condition: string } }>('GET', `/items/${id}`)).body.item.condition).toBe('new');
  await expect(page).toHaveURL(new RegExp(`/items/${id}$`));
});

test('the keys of the sheet stand in the list of shortcuts', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await open(page, id);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('?');
  const list = page.getByRole('dialog', { name: 'Shortcuts' });
  for (const [keys, what] of [
    ['Alt N', 'Next missing field'],
    ['Alt D', 'New from this'],
    ['Alt V', 'Variations'],
    ['Alt PageDown', 'Next item'],
  ] as const) {
    await expect(list.getByText(keys, { exact: true })).toBeVisible();
    await expect(list.getByText(what, { exact: true })).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await expect(list).toHaveCount(0);
});

test('history: who changed what, what was answered, and one step back', async ({ page }) => {
  const { id } = await readyItem({ title: 'The first title' });
  await signedIn(page);
  await open(page, id);
  await page.getByRole('textbox', { name: 'Title' }).fill('The second title');
  await saved(page);
  await page.keyboard.press('Alt+h');
  const entry = page.getByRole('listitem').filter({ hasText: 'The firstsecond title' });
  await entry.getByRole('button', { name: /^Bring title back/ }).click();
  await until(
    async () => (await sheet(id)).item.title,
    (title) => title === 'The first title',
  );
});

test('several in one sitting: over to the next in the same field, and details taken over', async ({ page }) => {
  const [one, two, three] = [
    await readyItem({ supplier: 'Quay auction' }),
    await readyItem({ supplier: '' }),
    await readyItem({ supplier: '' }),
  ];
  await signedIn(page);
  for (const { id } of [one, two, three]) await open(page, id);
  await open(page, one.id);
  const openItems = page.getByRole('navigation', { name: 'Items of this sitting' });
  await expect(openItems.getByRole('listitem')).toHaveCount(3);
  await page.getByLabel('Supplier').focus();
  await page.keyboard.press('Alt+PageDown');
  await page.waitForURL(new RegExp(`/items/${two.id}`));
  await expect(page.getByLabel('Supplier')).toBeFocused();
  await page.keyboard.press('Alt+PageUp');
  await page.waitForURL(new RegExp(`/items/${one.id}`));
  await openItems.getByRole('button', { name: /^Take over/ }).click();
  const dialog = page.getByRole('dialog', { name: /^Take over from/ });
  await dialog.getByRole('button', { name: /^(all|none)$/ }).click();
  const fields = dialog.getByRole('group', { name: /^Fields/ });
  for (const box of await fields.getByRole('checkbox').all()) await box.uncheck();
  await fields.getByRole('checkbox', { name: 'Supplier' }).check();
  for (const box of await dialog.getByRole('group', { name: 'Into' }).getByRole('checkbox').all()) await box.check();
  await dialog.getByRole('button', { name: 'Take 1 fields over into 2 items' }).click();
  await expect(page.getByText('2 items changed')).toBeVisible();
  for (const { id } of [two, three])
    expect((await call<{ item: { supplier: string } }>('GET', `/items/${id}`)).body.item.supplier).toBe('Quay auction');
});

test('new from a catalogue by barcode; from a template; every action is in the launcher', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('Shift+N');
  await page.getByPlaceholder(/barcode, ISBN/).fill('2044000000118');
  await page
    .getByRole('option', { name: /Saltmark Harbour 400/ })
    .first()
    .click();
  await page.waitForURL(/\/items\/\d+/);
  await expect(page.getByLabel('Barcode')).toHaveValue('2044000000118');
  await expect(page.getByLabel('Brand', { exact: true })).toHaveValue('Saltmark');
  // From a template: what its conditions say an item is, the new one begins with.
  const made = await call<{ id: number }>('POST', '/templates', {
    name: `Beginning ${Date.now().toString(36)}`,
    conditions: [{ field: 'category', op: 'is', value: 'cameras/tlr' }],
    fields: { footer: 'From the bench' },
  });
  await page.reload();
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Shift+N');
  await page
    .getByRole('option', { name: /^Beginning/ })
    .first()
    .click();
  await page.waitForURL(/\/items\/\d+/);
  await expect(page.getByRole('combobox', { name: 'Category', exact: true })).toHaveValue('cameras/tlr');
  await call('DELETE', `/templates/${made.body.id}`);
  await page.keyboard.press('Control+k');
  for (const name of [
    'Next missing field',
    'New from this',
    'Take over',
    'Variations',
    'History',
    'Help with wording',
    'Settings',
  ])
    await expect(page.getByRole('option', { name: new RegExp(`^${name}`) })).toBeAttached();
  await page.keyboard.press('Escape');
});

test('a catalogue’s details into an item that is there; a property nobody asks for; the title’s room everywhere', async ({
  page,
}) => {
  const { id } = await readyItem({ title: 'A roll of film', brand: '', model: '', barcode: '2044000000118' });
  await signedIn(page);
  await open(page, id);
  await expect(page.getByText(/^14\/\d+ everywhere$/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Title' }).fill('x'.repeat(120));
  await expect(page.getByText(/^120\/\d+ everywhere$/)).toHaveClass(/text-warning/);
  await page.getByRole('textbox', { name: 'Title' }).fill('A roll of film');

  await page.keyboard.press('Alt+c');
  const dialog = page.getByRole('dialog', { name: 'From a catalogue' });
  await dialog.getByRole('button', { name: /Harbour 400/ }).click();
  // What the item leaves empty is ticked, what it says otherwise is not.
  await expect(dialog.getByRole('checkbox', { name: /Brand/ })).toBeChecked();
  await expect(dialog.getByRole('checkbox', { name: /Title/ })).not.toBeChecked();
  await dialog.getByRole('button', { name: /^Take over/ }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  expect(await sheet(id)).toMatchObject({ item: { title: 'A roll of film', brand: 'Saltmark', model: 'Harbour 400' } });
  await until(
    () => fieldOn(id, 'Selasar', 'product'),
    (field) => String(field?.value).startsWith('SP'),
  );

  await page.getByLabel('Name of another property').fill('Expiry mark');
  await page.getByLabel('What it is', { exact: true }).fill('On the lid');
  await page.keyboard.press('Enter');
  await saved(page);
  expect(
    (await call<{ item: { attributes: Record<string, string> } }>('GET', `/items/${id}`)).body.item.attributes,
  ).toMatchObject({ 'Expiry mark': 'On the lid' });
});

test('a field of one’s own and a pattern of stock numbers, from the settings to the sheet', async ({ page }) => {
  const name = `Serial ${Date.now().toString(36)}`;
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto('/settings');
  await page.getByLabel('Pattern').fill('no number');
  await expect(page.getByText('“ ” cannot stand in a stock number')).toBeVisible();
  await page.getByLabel('Pattern').fill('{bin}-{yy}{week}-{seq}');
  await expect(page.getByText(/^such as/)).toContainText('B12-');
  await page.getByRole('button', { name: 'Add a field' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Most characters').fill('6');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('rowheader', { name })).toBeVisible();
  await open(page, id);
  await page.getByLabel(name).fill('1234567');
  await expect(page.getByText(`${name} has at most 6 characters`)).toBeVisible();
  await page.getByLabel(name).fill('123456');
  await saved(page);
  const { own } = (await call<{ item: { own: Record<string, string> } }>('GET', `/items/${id}`)).body.item;
  expect(Object.values(own)).toEqual(['123456']);
  await page.goto('/');
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByRole('combobox', { name: 'Field of condition 1' }).selectOption({ label: name });
  await page.getByRole('combobox', { name: 'Comparison of condition 1' }).selectOption('is');
  await page.getByRole('textbox', { name: 'Value of condition 1' }).fill('123456');
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByText('1 item', { exact: true })).toBeVisible();
  await page.goto('/settings');
  await page
    .getByRole('row', { name: new RegExp(name) })
    .getByRole('button', { name: 'Remove' })
    .click();
  await expect(page.getByRole('rowheader', { name })).toHaveCount(0);
});

test('ready-made sentences of the condition are switched on and off in the sheet; what was written besides stays', async ({
  page,
}) => {
  const { conditionSnippets } = (await call<{ conditionSnippets: Record<string, string[]> }>('GET', '/settings')).body;
  await call('PUT', '/settings', {
    conditionSnippets: { ...conditionSnippets, excellent: ['Box complete', 'Tested with film'] },
  });
  const { id } = await readyItem({ condition: 'excellent', conditionNote: 'A dent at the base.' });
  const note = async () =>
    (await call<{ item: { conditionNote: string } }>('GET', `/items/${id}`)).body.item.conditionNote;
  await signedIn(page);
  await open(page, id);
  await page.getByText('Sentences', { exact: true }).click();
  await page.getByRole('button', { name: 'Tested with film', exact: true }).click();
  await page.getByRole('button', { name: 'Box complete', exact: true }).click();
  await expect.poll(note).toBe('Box complete. Tested with film. A dent at the base.');
  // By keyboard: to the first of them, and over to the next.
  await page.keyboard.press('Alt+g');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect.poll(note).toBe('Box complete. A dent at the base.');
});
