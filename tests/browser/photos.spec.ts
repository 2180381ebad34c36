import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { jpeg, readyItem, sheet, upload } from '../support/items';
import { call, stack, until } from '../support/stack';
import { saved, signedIn } from './steps';

/** A dark thing on a grey backdrop. */
const onBackdrop = async () =>
  sharp({ create: { width: 1_200, height: 900, channels: 3, background: '#b4afa8' } })
    .composite([
      {
        input: await sharp({ create: { width: 400, height: 400, channels: 3, background: '#30241c' } })
          .png()
          .toBuffer(),
        left: 400,
        top: 250,
      },
    ])
    .jpeg({ quality: 95 })
    .toBuffer();

async function pixels(
  hash: string,
): Promise<{ at: (x: number, y: number) => number[]; width: number; height: number }> {
  const answer = await fetch(`${stack.base}/api/photos/${hash}-market`, {
    headers: { authorization: `Bearer ${stack.token}` },
  });
  const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()))
    .raw()
    .toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    at: (x, y) => [...data.subarray((y * info.width + x) * info.channels, (y * info.width + x) * info.channels + 3)],
  };
}

test('on the desk: turned, squared, lit, the backdrop white, a badge; the original comes back', async ({ page }) => {
  const made = await readyItem();
  await call('PUT', `/items/${made.id}/photos`, { photos: [] });
  await upload(made.id, await onBackdrop());
  const original = (await sheet(made.id)).item.photos[0]?.hash ?? '';
  await signedIn(page);
  await page.goto(`/items/${made.id}`);
  await page.getByRole('button', { name: 'Work on photo 1' }).click();
  const desk = page.getByRole('dialog', { name: /^Photo 1 of/ });
  await expect(desk.getByRole('img', { name: 'The result' })).toBeVisible();
  await desk.getByLabel('White, from the edges inwards').check();
  await desk.getByRole('button', { name: 'Right' }).click();
  await desk.getByLabel('Words of the badge').fill('Tested');
  await desk.getByLabel('Corner of the badge').selectOption('bottom right');
  await desk.getByRole('button', { name: 'Keep the result' }).click();
  await expect(desk).toHaveCount(0);
  const changed = await until(
    async () => (await sheet(made.id)).item.photos[0]?.hash ?? '',
    (hash) => hash !== original,
  );
  const picture = await pixels(changed);
  expect([picture.width, picture.height]).toEqual([900, 1_200]);
  for (const [x, y] of [
    [5, 5],
    [890, 5],
    [5, 1_190],
  ] as const)
    for (const value of picture.at(x, y)) expect(value).toBeGreaterThan(248);
  expect(picture.at(450, 600)[0]).toBeLessThan(80);
  // The badge: dark, in its corner.
  expect(picture.at(840, 1_130)[0]).toBeLessThan(200);

  await page.getByRole('button', { name: 'Work on photo 1' }).click();
  await desk.getByRole('button', { name: 'Square' }).click();
  await desk.getByLabel('Keep the untouched one, too, at the end').check();
  await expect(desk.getByLabel('White, from the edges inwards')).toBeChecked();
  await desk.getByRole('button', { name: 'Keep the result' }).click();
  await expect(desk).toHaveCount(0);
  const squared = await until(
    async () => (await sheet(made.id)).item.photos[0]?.hash ?? '',
    (hash) => hash !== changed,
  );
  // The same photo twice: cleaned up as the cover, untouched at the end.
  await until(
    async () => (await sheet(made.id)).item.photos.map((photo) => photo.hash),
    (hashes) => hashes.length === 2 && hashes[1] === original,
  );
  const square = await pixels(squared);
  expect(Math.abs(square.width - square.height)).toBeLessThanOrEqual(2);

  await page.getByRole('button', { name: 'Work on photo 1' }).click();
  await desk.getByRole('button', { name: 'Back to the original' }).click();
  await desk.getByRole('button', { name: 'Keep the result' }).click();
  await until(
    async () => (await sheet(made.id)).item.photos[0]?.hash,
    (hash) => hash === original,
  );
});

test('a photo of a flaw points at the condition note; HEIC is refused with a way out', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await page.getByRole('button', { name: 'Flaw on photo 1' }).click();
  await page.getByLabel('The flaw, in a few words').fill('Dent at the corner.');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add “Dent at the corner.”' }).click();
  await saved(page);
  expect((await call<{ item: { conditionNote: string } }>('GET', `/items/${id}`)).body.item.conditionNote).toBe(
    'Light brassing. Dent at the corner.',
  );
  const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(64)]);
  await page.getByLabel('Photo files').setInputFiles([
    { name: 'IMG_1.HEIC', mimeType: 'image/heic', buffer: heic },
    { name: 'fine.jpg', mimeType: 'image/jpeg', buffer: await jpeg(950, '#552255') },
  ]);
  await expect(page.getByText('IMG_1.HEIC is a HEIC picture')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Photo 2/ })).toBeVisible();
});

test('a button that is pressed while the means of moving photos arrive is still pressed', async ({ page }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  const button = page.getByRole('button', { name: 'Flaw on photo 1' });
  await expect(button).toBeVisible();
  let open = () => {};
  const gate = new Promise<void>((resolve) => {
    open = resolve;
  });
  await page.route('**/*.js', async (route) => {
    await gate;
    await route.continue();
  });
  const asked = page.waitForRequest('**/*.js');
  await button.hover();
  const request = await asked;
  await page.mouse.down();
  open();
  await (await request.response())?.finished();
  await page.waitForLoadState('networkidle');
  await page.mouse.up();
  await expect(page.getByLabel('The flaw, in a few words')).toBeVisible();
  // Then they are there.
  await page.keyboard.press('Escape');
  const handle = page.getByRole('button', { name: 'Photo 1, main photo: move with space and arrow keys' });
  await expect(handle).toHaveAttribute('aria-roledescription', /.+/);
});

test('photos from the phone, at 390 pixels and without signing in', async ({ page, browser }) => {
  const { id } = await readyItem();
  await signedIn(page);
  await page.goto(`/items/${id}`);
  await page.getByRole('button', { name: 'From the phone' }).click();
  const dialog = page.getByRole('dialog', { name: 'Photos from the phone' });
  const address = await dialog.getByText(/^http:\/\/\S+\/phone\//).textContent();
  await expect(dialog.getByRole('img', { name: /as a code$/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();

  const phone = await browser.newContext({ viewport: { width: 390, height: 780 }, isMobile: true, hasTouch: true });
  const there = await phone.newPage();
  await there.goto(address ?? '');
  expect(await there.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await there
    .locator('input[type=file]')
    .nth(1)
    .setInputFiles([
      { name: 'a.jpg', mimeType: 'image/jpeg', buffer: await jpeg(1_100, '#335577') },
      { name: 'b.jpg', mimeType: 'image/jpeg', buffer: await jpeg(1_100, '#773355') },
    ]);
  await expect(there.getByText('2 of 2 on the sheet')).toBeVisible();
  // What the code opens is this and nothing else.
  expect((await there.request.get(`/api/v1/items/${id}`)).status()).toBe(401);
  await phone.close();
  await expect(page.getByRole('button', { name: /^Photo 3/ })).toBeVisible();
});
