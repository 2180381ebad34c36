import { randomBytes } from 'node:crypto';
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect as plain } from '@playwright/test';
import sharp from 'sharp';

/** What is broken comes back within this. */
const expect = plain.configure({ timeout: 30_000 });
const sentMs = 120_000;

/** A code of a book that the catalogues know, by its place. */
export function bookCode(index) {
  const twelve = `9797${44_000_049 + index}`;
  const sum = [...twelve].reduce((total, digit, at) => total + Number(digit) * (at % 2 ? 3 : 1), 0);
  return `${twelve}${(10 - (sum % 10)) % 10}`;
}

/** A picture that no other is like. */
const photo = (folder, name) =>
  sharp(randomBytes(16 * 12 * 3), { raw: { width: 16, height: 12, channels: 3 } })
    .resize(1_600, 1_200)
    .jpeg()
    .toBuffer()
    .then((bytes) => {
      const path = join(folder, `${name}.jpg`);
      writeFileSync(path, bytes);
      return path;
    });

const grid = (page) => page.getByRole('grid', { name: 'Inventory' });
const saved = (page) => expect(page.locator('[data-save=saved]')).toBeVisible();
const toolbar = (page) => page.getByRole('toolbar', { name: 'Chosen items' });

/** Everything of what is under way was sent, whether it was taken or not. */
async function watched(page) {
  await expect(page.getByText(/^(Everything is sent|\d+ of \d+ done)/).first()).toBeVisible({ timeout: sentMs });
}

/** The first so many rows of a view of the inventory are chosen, by the keyboard. */
async function choose(seller, address, count) {
  const { page } = seller;
  await seller.go(address);
  await grid(page).getByRole('row').nth(1).waitFor();
  const rows = (await grid(page).getByRole('row').count()) - 1;
  await grid(page).focus();
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Space');
  for (let at = 1; at < Math.min(count, rows); at++) await page.keyboard.press('Shift+ArrowDown');
  await expect(toolbar(page)).toBeVisible();
}

/** The plan of publishing is open: only these accounts, and off it goes. */
async function send(seller, accounts) {
  const { page } = seller;
  await page.getByRole('button', { name: 'Choose none' }).click();
  for (const name of accounts)
    await page
      .getByRole('checkbox', { name: new RegExp(`^${name}`) })
      .first()
      .check();
  const how = page.getByText(/\d+ of \d+ (sent|done)/);
  await seller.press(page.getByRole('button', { name: /^Send \d+ listings?$/ }), how);
  return (await how.first().textContent()) ?? '';
}

/** A camera is written down with its photos, by hand, and sent. */
export const record = (seller, name, accounts) =>
  seller.chore(`record and publish ${name}`, async (page) => {
    await seller.go('/items/new');
    await page.getByRole('textbox', { name: 'Title' }).fill(`Orvane M4 ${name} silver 35 mm SLR film camera`);
    await page.getByLabel('Brand', { exact: true }).fill('Orvane');
    await page.getByLabel('Model', { exact: true }).fill('M4');
    await page.getByLabel('Category', { exact: true }).fill('cameras/slr');
    await page.getByRole('combobox', { name: 'Condition' }).selectOption({ label: 'Very good' });
    await page.getByRole('textbox', { name: 'Condition note' }).fill('Light brassing at the edges.');
    await page.getByRole('textbox', { name: 'Description' }).click();
    await page.keyboard.type('Checked on our bench with a test film.');
    await page.getByRole('textbox', { name: 'Price in EUR', exact: true }).fill('249,00');
    await page.getByRole('textbox', { name: 'Cost in EUR' }).fill('80');
    await page.getByRole('textbox', { name: 'Weight, with its unit' }).fill('2 lb 1 oz');
    await page.getByLabel('Film format', { exact: true }).fill('35 mm');
    await page.getByLabel('Decade', { exact: true }).fill('1960s');
    const files = [await photo(seller.folder, `${name}-1`), await photo(seller.folder, `${name}-2`)];
    await page.getByLabel('Photo files').setInputFiles(files);
    await expect(page.getByRole('button', { name: /^Photo 2/ })).toBeVisible();
    await saved(page);
    await page.getByRole('button', { name: 'Publish' }).click();
    return send(seller, accounts);
  });

/** A pile is scanned with what every piece gets, and priced. */
export const scanPile = (seller, name, codes) =>
  seller.chore(`scan ${codes.length} books`, async (page) => {
    await seller.go('/batches');
    await page.getByRole('button', { name: 'New batch' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByRole('button', { name: /^Begin/ }).click();
    const field = page.getByRole('textbox', { name: 'Scan a code, or type it or a name' });
    await expect(field).toBeFocused();
    const piece = page.getByRole('form', { name: 'Every piece gets' });
    await piece.getByRole('combobox', { name: 'Condition' }).selectOption('good');
    await piece.getByRole('textbox', { name: 'Cost of one' }).fill('3.00');
    await piece.getByRole('combobox', { name: 'Price' }).selectOption('cost');
    await field.click();
    for (const code of codes) {
      await page.keyboard.type(code);
      await page.keyboard.press('Enter');
      await expect(field).toHaveValue('');
    }
    await expect(page.getByText(/^(Sending|No connection)/)).toHaveCount(0, { timeout: sentMs });
    await expect(page.getByLabel('Totals')).toContainText(String(codes.length), { timeout: sentMs });
    return page.url().replace(/.*\/batches\/(\d+).*/, 'batch $1');
  });

/** Photos find their items by their names, dropped all at once. */
export const photographPile = (seller, name, skusOf) =>
  seller.chore('photographs dropped, named by stock number', async (page) => {
    const skus = await skusOf();
    await seller.go('/photos');
    const files = await Promise.all(skus.map((sku) => photo(seller.folder, sku)));
    await page.getByLabel('Photo files for many items').setInputFiles(files);
    await page.waitForURL(/\/photos\/drops\/\d+/, { timeout: sentMs });
    const add = page.getByRole('button', { name: /^Add \d+ photos to \d+ items/ });
    await expect(add).toBeEnabled({ timeout: sentMs });
    await seller.press(add, page.getByText(/\d+ added/));
    return `${files.length} photos of ${name}`;
  });

/** What was scanned is published from its batch. */
export const publishPile = (seller, name, accounts) =>
  seller.chore('publish the batch', async (page) => {
    await seller.go('/batches');
    await page.getByRole('link', { name }).first().click();
    await page.getByRole('button', { name: 'Publish …' }).click();
    return send(seller, accounts);
  });

/** Many prices are changed in percent, and sent. @returns whether it went well */
export const reprice = (seller, address, count, percent, { watches = true } = {}) =>
  seller.chore(`${percent} % on ${count} items`, async (page) => {
    await choose(seller, address, count);
    await toolbar(page).getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByPlaceholder('-5').fill(String(percent));
    const send = page.getByRole('button', { name: /^Save and send \d+ listings?/ });
    await expect(send).toBeEnabled();
    await seller.press(send, page.getByRole('heading', { name: /items are changed$/ }));
    // Where somebody is away it is not done today.
    if (!watches) return;
    await page.getByRole('link', { name: 'Watch it being sent' }).click();
    await watched(page);
  });

/** Words before the title of many; the whole change is taken back afterwards. */
export const wordsAndBack = (seller, address, count) =>
  seller.chore(`words before ${count} titles, and back`, async (page) => {
    await choose(seller, address, count);
    await toolbar(page).getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByLabel('Field of step 1').selectOption({ label: 'Title' });
    await page.getByLabel('Step 1', { exact: true }).selectOption({ label: 'Put before' });
    await page.getByLabel('Text', { exact: true }).first().fill('Autumn: ');
    const send = page.getByRole('button', { name: /^Save and send \d+ listings?/ });
    await expect(send).toBeEnabled();
    await seller.press(send, page.getByRole('button', { name: 'Take the whole change back' }));
    await seller.press(
      page.getByRole('button', { name: 'Take the whole change back' }),
      page.getByRole('heading', { name: /items are as they were$/ }),
    );
  });

/** Listings of many are ended, and listed again from the outbox. */
export const endAndBack = (seller, address, count) =>
  seller.chore(`end ${count} items’ listings, and list them again`, async (page) => {
    await choose(seller, address, count);
    await toolbar(page).getByRole('button', { name: 'End', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'End listings' });
    const end = dialog.getByRole('button', { name: /^End \d+ listings?$/ });
    await expect(end).toBeEnabled();
    await seller.press(end, dialog.getByRole('status'));
    await dialog.getByRole('link', { name: 'Watch it in the outbox' }).click();
    await watched(page);
    await seller.go('/outbox');
    await seller.press(
      page.getByRole('region', { name: 'Runs' }).getByRole('button', { name: 'List them again' }).first(),
      page.getByText(/listings? on the way again/),
    );
  });

/** Units sold at the door. */
export const soldByHand = (seller, id) =>
  seller.chore('sell one by hand', async (page) => {
    await seller.go(`/items/${id}`);
    await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
    await page.keyboard.press('Alt+l');
    const ledger = page.getByRole('dialog');
    await seller.press(
      ledger.getByRole('button', { name: /^Sold 1: / }),
      ledger.getByRole('row', { name: /Sold by hand/ }).first(),
      1,
    );
  });

/** A set is taken apart: its contents, their prices, into stock and on offer. */
export const takeApart = (seller, name) =>
  seller.chore('take a set apart', async (page) => {
    await seller.go('/kits');
    await page.getByRole('button', { name: 'Take sets apart' }).click();
    const begin = page.getByRole('dialog', { name: 'Take sets apart' });
    await begin.getByLabel('Name').fill(name);
    await begin.getByLabel('What all of them cost').fill('60.00');
    await begin.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByRole('heading', { name })).toBeVisible();
    await page.getByRole('button', { name: 'Add contents' }).first().click();
    const contents = page.getByRole('dialog', { name: 'Add contents' });
    await contents.getByLabel('Number of the set there').fill('LB4031');
    await contents.getByLabel('Condition').selectOption('poor');
    await contents.getByRole('button', { name: 'Add', exact: true }).click();
    const lots = page.getByRole('table', { name: 'Lots' });
    await expect(lots.getByRole('row').nth(5)).toBeVisible();
    await page.getByRole('button', { name: 'Prices' }).click();
    await page
      .getByRole('dialog', { name: /^Prices/ })
      .getByRole('button', { name: 'Price them' })
      .click();
    await expect(page.getByText(/lots are priced/)).toBeVisible({ timeout: sentMs });
    for (let at = 0; at < 8; at++)
      await lots
        .locator(`[aria-rowindex="${at + 2}"]`)
        .getByRole('checkbox')
        .click();
    await page.getByRole('toolbar', { name: 'Chosen lots' }).getByRole('button', { name: 'Add to stock' }).click();
    const stock = page.getByRole('dialog', { name: 'Add pieces to the stock' });
    await stock.getByLabel('Offer them on the marketplace of the catalogue, too').check();
    await stock.getByRole('button', { name: /^Add \d+ to stock/ }).click();
    await expect(page.getByLabel('Totals').locator('div', { hasText: 'In stock' }).locator('dd')).not.toHaveText('0', {
      timeout: sentMs,
    });
  });

/** Pictures are dropped, and offered on the products of their template. */
export const artwork = (seller, called, count) =>
  seller.chore(`${count} pictures on products`, async (page) => {
    const files = [];
    // Begun anew they are others.
    const name = `${called} ${randomBytes(2).toString('hex')}`;
    for (let at = 0; at < count; at++) {
      const between = [...randomBytes(12)].map((one, index) => `${index % 2 ? ',' : ' '}${300 + one * 9}`).join('');
      const line = `<polyline points="200,200${between} 2800,2800" fill="none" stroke="#202020" stroke-width="220"/>`;
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="3000">${line}</svg>`;
      const path = join(seller.folder, `${name} ${at + 1}.png`);
      writeFileSync(path, await sharp(Buffer.from(svg)).png().toBuffer());
      files.push(path);
    }
    await seller.go('/artwork');
    await page.getByLabel('Pictures of artwork').setInputFiles(files);
    await expect(page.getByText(`${count} pictures taken`)).toBeVisible({ timeout: sentMs });
    await seller.go(`/?q=${encodeURIComponent(name)}`);
    await grid(page).getByRole('row').nth(count).waitFor();
    await grid(page).focus();
    await page.keyboard.press('Control+a');
    await toolbar(page).getByRole('button', { name: 'Change', exact: true }).click();
    const common = page.getByRole('table', { name: 'In common' });
    await common.getByLabel('Set price to').fill('39.00');
    await common.getByLabel('Set description to').fill('Drawn with a brush.');
    await seller.press(
      page.getByRole('button', { name: /^Save \d+ items$/ }),
      page.getByRole('heading', { name: /items are changed$/ }),
    );
    // What only this marketplace asks for is said on each sheet.
    for (let at = 1; at <= count; at++) {
      await seller.go(`/?q=${encodeURIComponent(name)}&sort=title&dir=asc`);
      await grid(page).getByText(`${name} ${at}`).first().click();
      await page.keyboard.press('Enter');
      await page.waitForURL(/\/items\/\d+/);
      await page.getByLabel('Motif', { exact: true }).first().fill('Abstract');
      await page.keyboard.press('Tab');
      await saved(page);
    }
    await seller.go(`/?q=${encodeURIComponent(name)}`);
    await grid(page).focus();
    await page.keyboard.press('Control+a');
    await toolbar(page).getByRole('button', { name: 'Publish', exact: true }).click();
    return send(seller, ['Wallfolk']);
  });

/** A batch goes to the marketplace's warehouses, is packed by scanning, shipped, and arrives. */
export const sendIn = (seller, batch, { codesOf, received }) =>
  seller.chore('send stock in to warehouses', async (page) => {
    await seller.go('/batches');
    await page.getByRole('link', { name: batch }).first().click();
    await page.getByRole('button', { name: 'Send in …' }).click();
    await page.getByLabel('Name', { exact: true }).fill(`${batch} ${Date.now() % 10_000}`);
    await page.getByRole('button', { name: 'Begin' }).click();
    await page.waitForURL(/\/consignments\/\d+/);
    const id = Number(/\/consignments\/(\d+)/.exec(page.url())?.[1]);
    const plan = page.getByRole('article', { name: 'Plan 1' });
    await seller.press(page.getByRole('button', { name: 'Ask for a plan' }), plan);
    const field = page.getByRole('textbox', { name: 'Scan a piece, or the label of a box' });
    await seller.press(plan.getByRole('button', { name: 'Take this plan' }), field);
    await field.click();
    for (const code of await codesOf(id)) {
      await page.keyboard.type(code);
      await page.keyboard.press('Enter');
      await expect(field).toHaveValue('');
    }
    await expect(page.locator('#packed-said')).toContainText('All is packed', { timeout: sentMs });
    // One warehouse after the other: what is on its way has nothing to be weighed any more.
    const open = page
      .getByRole('region', { name: /^(?!Boxes to)/ })
      .filter({ has: page.getByLabel(/^Weight of box 1/) });
    for (let left = await open.count(); left > 0; left--) {
      const card = open.first();
      await card.getByLabel('Weight of box 1 in kilograms').fill('9');
      await card.getByLabel('Sides of box 1 in centimetres').fill('40 x 30 x 30');
      await card.getByRole('button', { name: 'Keep the boxes' }).click();
      const form = card.getByRole('form', { name: /^Ship to/ });
      await seller.press(card.getByRole('button', { name: 'Tell them the boxes' }), form);
      await expect(form.getByLabel('Postage in all, EUR')).not.toHaveValue('');
      await form.getByLabel('Tracking of box 1').fill(`FR-${id}`);
      await form.getByRole('button', { name: 'It is on its way' }).click();
      await expect(open).toHaveCount(left - 1);
    }
    await received(id);
    await seller.go(`/consignments/${id}`);
    for (const look of await page.getByRole('button', { name: 'Look what has arrived' }).all()) await look.click();
    await expect(page.getByRole('columnheader', { name: 'Arrived' }).first()).toBeVisible();
  });

/** A rule became stricter: what no longer fits stands under Attention, and is mended there. */
export const mendRule = (seller, sku) =>
  seller.chore('a changed rule, mended under Attention', async (page) => {
    await seller.go('/attention');
    const violation = page.locator('[data-violation=title-long]').filter({ hasText: sku });
    await violation.getByRole('button', { name: 'Mend and send' }).click();
    await expect(violation).toHaveCount(0, { timeout: sentMs });
  });

/** The longest unrenewed end and are made anew. */
export const renew = (seller, account, count) =>
  seller.chore(`renew ${count}`, async (page) => {
    await seller.go(`/renewals?account=${account}&order=longest`);
    const boxes = page.getByRole('checkbox', { name: /^Choose / });
    await boxes.first().waitFor();
    for (let at = 0; at < Math.min(count, await boxes.count()); at++) await boxes.nth(at).check();
    await seller.press(page.getByRole('button', { name: /^Renew \d+ listings?/ }), page.getByText(/\d+ of \d+ done/));
  });

/** What somebody changed on the marketplace itself is settled, each side once. */
export const settleDifferences = (seller, skus) =>
  seller.chore(`${skus.length} differences settled`, async (page) => {
    await seller.go('/differences');
    for (const [at, sku] of skus.entries()) {
      // The same item may stand among what is gone as well.
      const row = page
        .getByRole('listitem')
        .filter({ hasText: sku })
        .filter({ has: page.getByRole('columnheader', { name: 'Shown there' }) });
      await row.first().waitFor({ timeout: sentMs });
      await row
        .getByRole('button', { name: at % 2 ? /^Take their/ : /^Put our/ })
        .first()
        .click();
      await expect(row).toHaveCount(0, { timeout: sentMs });
    }
  });

/** An order is called off from the list of sales. */
export const callOff = (seller) =>
  seller.chore('call an order off', async (page) => {
    await seller.go('/sales?state=paid');
    // A marketplace that does not answer says so, and is asked once more by the next try.
    await page
      .getByRole('button', { name: /^Cancel order/ })
      .first()
      .click();
    await page.getByRole('button', { name: /for good$/ }).click();
    await expect(page.getByText(/The order is cancelled/)).toBeVisible();
  });

/** An offer is taken, where one stands. */
export const takeOffer = (seller, words) =>
  seller.chore('accept an offer', async (page) => {
    await seller.go('/attention');
    const offer = page.getByRole('listitem').filter({ hasText: words });
    await offer.getByRole('button', { name: 'Accept' }).click();
    await expect(offer).toHaveCount(0, { timeout: sentMs });
  });

/** Twenty rows go out as a file, two prices are changed in it, and it comes back. */
export const fileOutAndIn = (seller, address) =>
  seller.chore('a file out, changed, and in again', async (page) => {
    await choose(seller, address, 20);
    await toolbar(page).getByRole('button', { name: 'Write out' }).click();
    const out = page.getByRole('region', { name: 'Write out' });
    await seller.press(
      out.getByRole('button', { name: 'Write out', exact: true }),
      page.getByText(/items written out/),
    );
    const file = page.waitForEvent('download');
    await out
      .getByRole('link', { name: / as CSV$/ })
      .first()
      .click();
    const path = join(seller.folder, 'out.csv');
    await (await file).saveAs(path);
    const lines = readFileSync(path, 'utf8').trimEnd().split('\r\n');
    const at = (lines[0] ?? '').split(',').indexOf('Price');
    const changed = lines.map((line, index) =>
      index === 1 || index === 2 ? line.replace(/(\d+)\.(\d\d)/, (_, whole) => `${Number(whole) + 1}.00`) : line,
    );
    if (at < 0) throw new Error('there is no column of prices');
    writeFileSync(path, changed.join('\r\n'));
    await seller.go('/files');
    await page.getByLabel('A file to read in').setInputFiles(path);
    await page.getByRole('button', { name: 'Compare with the inventory' }).click();
    await expect(page.getByRole('tab', { name: /^Changes/ })).toBeVisible({ timeout: sentMs });
    const save = page.getByRole('button', { name: 'Save and send', exact: true });
    await seller.press(save, page.getByText('Carried out.', { exact: true }));
  });

/** Kept steps are carried out once more. */
export const routine = (seller, called, address) =>
  seller.chore('a routine kept and carried out', async (page) => {
    const name = `${called} ${randomBytes(2).toString('hex')}`;
    // By a filter, so that it finds them again.
    await seller.go(address);
    await grid(page).getByRole('row').nth(1).waitFor();
    await grid(page).focus();
    await page.keyboard.press('Control+a');
    await toolbar(page).getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByPlaceholder('-5').fill('-1');
    await page.getByRole('button', { name: 'Routines' }).click();
    await page.getByLabel('Name of this routine').fill(name);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText(`Kept as ${name}`)).toBeVisible();
    await seller.go('/routines');
    const card = page.getByRole('article', { name });
    await card.getByRole('button', { name: /^Carry it out on/ }).click();
    await expect(card.getByRole('region', { name: `Runs of ${name}` }).getByRole('link')).not.toHaveCount(0);
  });

/** Looked at in the evening: what was earned, what needs somebody, and the sales as a file. */
export const lookBack = (seller) =>
  seller.chore('look back over the day', async (page) => {
    await seller.go('/insights');
    await expect(page.getByRole('heading', { name: 'By account' })).toBeVisible();
    await seller.go('/attention');
    await expect(page.getByRole('heading', { name: 'Attention' })).toBeVisible();
    await seller.go('/sales');
    await page.getByRole('button', { name: 'These sales as a file' }).click();
    const file = page.waitForEvent('download');
    await page.getByRole('link', { name: 'These sales as CSV' }).click();
    const bytes = statSync(await (await file).path()).size;
    if (bytes < 200) throw new Error(`the file of sales has ${bytes} bytes`);
  });
