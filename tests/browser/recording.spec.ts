import { copyFile, mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { readyItem, sheet } from '../support/items';
import { cameraJpeg } from '../support/pictures';
import { call, until } from '../support/stack';
import { focused, Hand } from './hand';
import { saved, signedIn, signIn } from './steps';

const six = ['Hallowick', 'Oakhand', 'Pippet', 'Shopfront', 'Swishel', 'Lanesend'];
const itemId = (page: Page) => Number(/\/items\/(\d+)/.exec(page.url())?.[1]);
const readyOn = async (id: number) =>
  (await sheet(id)).columns.filter((column) => column.blocking === 0).map((column) => column.name);
/** Files on the disk, so that handing them over costs the page nothing. */
const photosOf = (from: number, count: number) =>
  Promise.all(
    Array.from({ length: count }, async (_, index) => {
      const path = join(test.info().outputDir, `IMG_${from + index}.jpg`);
      await mkdir(test.info().outputDir, { recursive: true });
      await writeFile(path, await cameraJpeg(from + index));
      return path;
    }),
  );

/** What marketplaces ask for besides, by the field's name: what only a person can know. */
const answers: Record<string, string> = {
  Decade: '1970s',
  Colour: 'Black',
  'Film format': '35 mm',
  Material: 'Metal',
  Tested: 'Yes',
};

test('from nothing to ready on six marketplaces, eight photos of twelve megapixels, by keyboard alone', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const files = await photosOf(100, 8);
  await signIn(page);
  const hand = new Hand(page);
  const began = Date.now();
  await hand.press('n');
  await page.waitForURL(/\/items\/new/);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
  await hand.choose('Alt+a', files);
  await hand.type('Brask K-2 black 35 mm SLR film camera with 50 mm lens, 1970s, tested');
  await hand.next('Brask');
  await hand.next('K-2');
  await hand.next('cameras/slr');
  // The list of conditions is opened by a blank: its beginning is enough.
  await hand.next('Ver');
  await hand.next('Light brassing at the edges, finder clear.');
  await hand.next('Checked on our bench with a test film. Shutter and meter work.');
  await hand.next();
  await hand.next('film camera, slr, analogue,');
  await hand.next('149');
  await hand.next('50');
  await hand.press('Tab', 4);
  expect(await focused(page)).toBe('Weight, with its unit');
  await hand.type('1 lb 15 oz');
  await saved(page);
  const id = itemId(page);
  for (let asked = 0; asked < 12; asked++) {
    const ready = await readyOn(id);
    if (six.every((name) => ready.includes(name))) break;
    await hand.press('Alt+n');
    const answer = answers[await focused(page)];
    if (answer) await hand.type(answer);
    await saved(page);
  }
  await until(
    () => sheet(id),
    (seen) => seen.item.photos.length === 8,
  );
  await until(
    () => readyOn(id),
    (ready) => six.every((name) => ready.includes(name)),
  );
  console.log(`  from nothing to ready on six: ${hand.told}, ${Math.round((Date.now() - began) / 1_000)} s by machine`);
  expect(hand.keys + hand.clicks).toBeLessThan(150);
  for (const name of six)
    await expect(page.getByRole('columnheader', { name, exact: false }).first()).toContainText('ready');
  // Lying on its side in the file, upright on the sheet.
  const { photos } = (await call<{ item: { photos: { width: number; height: number }[] } }>('GET', `/items/${id}`)).body
    .item;
  expect(photos[0]).toMatchObject({ width: 3_000, height: 4_000 });
});

test('the next one as a copy of the last, ready on six marketplaces', async ({ page }) => {
  const last = await readyItem({
    title: 'Brask K-2 black 35 mm SLR film camera, 1970s',
    attributes: { 'Film format': '35 mm', Colour: 'Black', Decade: '1970s', Material: 'Metal', Tested: 'Yes' },
  });
  const files = await photosOf(120, 2);
  await signedIn(page);
  await page.goto(`/items/${last.id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  const hand = new Hand(page);
  await hand.press('Alt+d');
  await page.waitForURL((url) => url.searchParams.has('copy'));
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
  // The words that will have to change are marked: typing replaces them.
  await hand.type('K-5 Auto');
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue(
    'Brask K-5 Auto black 35 mm SLR film camera, 1970s',
  );
  await hand.press('Tab', 2);
  await hand.type('K-5 Auto');
  await hand.choose('Alt+a', files);
  await hand.press('Tab', 3);
  await hand.type('Finder a little dusty.');
  await saved(page);
  const id = itemId(page);
  await until(
    () => readyOn(id),
    (ready) => six.every((name) => ready.includes(name)),
  );
  console.log(`  a copy of the last, ready on six: ${hand.told}`);
  expect(hand.keys + hand.clicks).toBeLessThan(60);
  expect((await call<{ item: { model: string } }>('GET', `/items/${id}`)).body.item.model).toBe('K-5 Auto');
});

test('thirty photos of twelve megapixels: the page stays free while they arrive', async ({ page }) => {
  test.setTimeout(240_000);
  const some = await photosOf(140, 5);
  const files = await Promise.all(
    Array.from({ length: 30 }, async (_, index) => {
      const path = join(test.info().outputDir, `big-${index}.jpg`);
      await copyFile(some[index % 5] ?? '', path);
      return path;
    }),
  );
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible();
  await page.evaluate(() => {
    const seen = window as unknown as { longest: number };
    seen.longest = 0;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.longest = Math.max(seen.longest, entry.duration);
    }).observe({ type: 'longtask' });
  });
  await page.getByLabel('Photo files').setInputFiles(files);
  await expect(page.getByText(/^Uploading \d+ of 30/)).toBeVisible();
  // Written and saved while they are still on their way.
  await page.getByLabel('Place', { exact: true }).fill('Q7');
  await until(
    async () => (await call<{ item: { location: string } }>('GET', `/items/${id}`)).body.item.location,
    (location) => location === 'Q7',
  );
  await expect(page.getByText(/^Uploading/)).toBeVisible();
  await expect(page.getByText(/^Uploading/)).toHaveCount(0, { timeout: 180_000 });
  const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
  // A figure to look at, measured by the bench: nothing here hangs on it.
  console.log(`  longest task of the page while 30 photos of 12 megapixels arrived: ${Math.round(longest)} ms`);
  await expect(page.getByRole('button', { name: /^Photo 31/ })).toBeVisible();
  await page.getByRole('button', { name: /^Remove all 31/ }).click();
  await expect(page.getByText('All photos are removed; the originals are kept')).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByRole('button', { name: /^Photo 31/ })).toBeVisible();
});

test('every way to write a weight and a length is understood', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const field = (name: string) => page.getByRole('textbox', { name, exact: true });
  const now = async () => (await call<{ item: Record<string, number> }>('GET', `/items/${id}`)).body.item;
  for (const [typed, grams] of [
    ['1 lb 3 oz', 539],
    ['540 g', 540],
    ['0,9 kg', 900],
    ['2½ lb', 1_134],
  ] as const) {
    await field('Weight, with its unit').fill(typed);
    await until(now, (item) => item.weightGrams === grams);
  }
  for (const [typed, millimetres] of [
    ['7 1/2 in', 191],
    ['19,5 cm', 195],
    ['210 mm', 210],
  ] as const) {
    await field('Width').fill(typed);
    await until(now, (item) => item.widthMm === millimetres);
  }
  await field('Length').fill('30 x 20 x 12,5 cm');
  await until(now, (item) => item.lengthMm === 300 && item.widthMm === 200 && item.heightMm === 125);
  await field('Weight, with its unit').fill('heavy');
  await expect(page.getByText('Write 540 g, 1.2 kg or 1 lb 3 oz')).toBeVisible();
  await expect(page.getByText(/Postline/).first()).toBeVisible();
});

test('a long text pasted from a word processor is cleaned and kept whole', async ({ page }) => {
  const { id } = await readyItem({ description: '' });
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const editor = page.getByRole('textbox', { name: 'Description', exact: true });
  await editor.click();
  await expect(editor).toHaveAttribute('contenteditable', 'true');
  const words = 'Careful words about a camera and its history. ';
  const text = words
    .repeat(Math.ceil(20_000 / words.length))
    .slice(0, 20_000)
    .trim();
  await editor.evaluate((element, pasted) => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      `<html><head><style>p.Para {margin:0cm}</style></head><body lang=EN style='tab-interval:36pt'><!--StartFragment--><p class=Para style='margin:0cm;font-family:"Times"'><b><span style='color:red'>Heading</span></b><o:p></o:p></p><p class=Para>${pasted}<o:p>&nbsp;</o:p></p><ul><li style='mso-list:l0'>Body</li><li>Lens</li></ul><script>window.broken = true</script><!--EndFragment--></body></html>`,
    );
    data.setData('text/plain', pasted);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
  await saved(page);
  const kept = await until(
    async () => (await call<{ item: { description: string } }>('GET', `/items/${id}`)).body.item.description,
    (description) => description.length > 20_000,
  );
  expect(kept).toContain(text);
  expect(kept).toContain('<strong>Heading</strong>');
  expect(kept).toMatch(/<li>(<p>)?Body/);
  expect(kept).not.toMatch(/style=|class=|<o:p|script|mso/);
  expect(await page.evaluate(() => 'broken' in window)).toBe(false);
});

test('titles from right to left and with signs of many parts are counted and kept as they are', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const title = page.getByRole('textbox', { name: 'Title' });
  for (const text of ['مصباح قديم من النحاس Brask K-2', '📷👩🏽‍🔧 Brask K-2 ✨ film camera']) {
    await title.fill(text);
    await until(
      async () => (await sheet(id)).item.title,
      (kept) => kept === text,
    );
    await expect(title).toHaveAttribute('dir', 'auto');
    await expect(page.getByText(`${[...text].length}/130`)).toBeVisible();
  }
});
