import { randomUUID } from 'node:crypto';
import { expect, type Page, test } from '@playwright/test';
import sharp from 'sharp';
import type { ArtworkView } from '../../src/services/artwork/find-artworks';
import type { SightsOfArtwork } from '../../src/services/artwork/find-sights';
import { bringArtwork, piece, printsFor, strokes } from '../support/artwork';
import { sheet } from '../support/items';
import { accountOf, call } from '../support/stack';
import { signedIn } from './steps';

const made: number[] = [];
test.afterAll(async () => {
  for (const id of made) await call('DELETE', `/templates/${id}`);
});

/** A small drawing for an audience of its own. */
async function smallArtwork(whom: string, title: string, colour = '#202020'): Promise<number> {
  const { body } = await bringArtwork(await sharp(strokes(colour, 700)).png().toBuffer(), `${title}.png`);
  const { item } = await sheet(body.itemId);
  await call('PATCH', `/items/${body.itemId}`, {
    baseVersion: item.version,
    patch: { title, attributes: { Audience: whom, 'Reads well on': 'White, Natural' } },
  });
  return body.itemId;
}

async function allSights(): Promise<SightsOfArtwork[]> {
  const all: SightsOfArtwork[] = [];
  for (let before: number | null = 0; before !== null; ) {
    const path: string = `/artworks/sights?limit=100${before ? `&before=${before}` : ''}`;
    const page: { artworks: SightsOfArtwork[]; next: number | null } = (
      await call<{ artworks: SightsOfArtwork[]; next: number | null }>('GET', path)
    ).body;
    all.push(...page.artworks);
    before = page.next;
  }
  return all;
}
const status = (page: Page) => page.getByRole('status').filter({ hasText: 'looked over' });

test('sixty pictures on twelve products and grounds are looked over by keyboard', async ({ page }) => {
  test.setTimeout(300_000);
  const whom = `Rowers ${randomUUID().slice(0, 8)}`;
  const products = ['Poster A3', 'Fine print 40 × 50 cm', 'Canvas 60 × 80 cm', 'Set of 6 cards', 'Mug', 'Tote bag'];
  const { id } = await printsFor(whom, [await accountOf('Wallfolk')], {
    pieces: products.map((one) => piece(one, ['White', 'Black'], 9_900)),
  });
  made.push(id);
  const ours: number[] = [];
  for (let at = 0; at < 60; at++) ours.push(await smallArtwork(whom, `Oar ${at} ${whom}`));
  const before = await allSights();
  const total = before.reduce((sum, one) => sum + one.sights.length, 0);
  // Twelve each, and more where default templates of other accounts fit them, too.
  const count = before.filter((one) => ours.includes(one.itemId)).reduce((sum, one) => sum + one.sights.length, 0);
  expect(count).toBeGreaterThanOrEqual(720);
  await signedIn(page);
  await page.goto('/artwork/gallery');
  await expect(status(page)).toContainText(`of ${total.toLocaleString('en')} looked over`);
  const grid = page.getByRole('grid', { name: 'Gallery' });
  await grid.focus();
  // What was made last stands first.
  for (let at = 0; at < count; at++) await page.keyboard.press(at % 10 === 9 ? 'o' : 'g');
  await expect(status(page)).not.toContainText('on the way', { timeout: 60_000 });
  const said = (await allSights()).filter((one) => ours.includes(one.itemId)).flatMap((one) => one.sights);
  const off = Math.floor(count / 10);
  expect(said.filter((one) => one.verdict === 'off')).toHaveLength(off);
  expect(said.filter((one) => one.verdict === 'good')).toHaveLength(count - off);
  // One is taken back, and what was called off is found again.
  await page.keyboard.press('Home');
  await page.keyboard.press('u');
  await expect(page.getByRole('gridcell', { selected: true })).toHaveAccessibleName(/not looked at|not offered/);
  await page.getByRole('button', { name: 'Called off' }).click();
  await expect(page.getByRole('gridcell').first()).toHaveAccessibleName(/: Off/);
});

test('a product template is made with the mouse, a picture is moved on it with guides, and back again', async ({
  page,
}) => {
  const whom = `Skaters ${randomUUID().slice(0, 8)}`;
  const title = `Blade ${whom}`;
  const id = await smallArtwork(whom, title);
  await signedIn(page);
  await page.goto('/templates');
  await page.getByRole('button', { name: 'New template' }).click();
  const form = page.getByRole('region', { name: /^(New template|Made for)/ });
  await form.getByLabel('Name', { exact: true }).fill(`Made for ${whom}`);
  await form.getByLabel('Wallfolk', { exact: true }).check();
  await form.getByRole('button', { name: 'Add a condition' }).click();
  await form.getByLabel('Field of condition 1').selectOption('title');
  await form.getByLabel('Comparison of condition 1').selectOption('contains');
  await form.getByLabel('Value of condition 1').fill(whom);
  await form.getByText('What artwork is printed on').click();
  await form.getByLabel('Add a product that is published').selectOption('Tote bag');
  const tote = form.getByRole('group', { name: 'Tote bag' });
  await tote.getByLabel('Price').fill('nothing');
  await expect(tote.getByText('This is no price')).toBeVisible();
  await tote.getByLabel('Price').fill('19.00');
  await tote.getByRole('button', { name: 'Black' }).click();
  await page.getByRole('button', { name: 'Keep the template' }).click();
  await expect(page.getByText('is kept; listings are computed anew')).toBeVisible();
  const { templates } = (await call<{ templates: { id: number; name: string; print: unknown }[] }>('GET', '/templates'))
    .body;
  const kept = templates.find((one) => one.name === `Made for ${whom}`);
  if (kept) made.push(kept.id);
  expect(kept?.print).toMatchObject({
    pieces: [
      {
        product: 'Tote bag',
        area: null,
        price: 1_900,
        grounds: [{ name: 'White' }, { name: 'Natural' }, { name: 'Sea blue' }],
      },
    ],
  });
  await page.goto('/artwork/gallery');
  const cell = page.getByRole('gridcell', { name: new RegExp(`^${title} on Tote bag, White`) });
  await cell.click();
  await page.keyboard.press('a');
  const dialog = page.getByRole('dialog', { name: `${title} on Tote bag` });
  const placed = dialog.getByTestId('placed');
  const box = await placed.boundingBox();
  if (!box) throw new Error('nothing is placed');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 1, y + 40, { steps: 5 });
  // Near the middle it is drawn to it, and the guide says so.
  await expect(dialog.getByTestId('guide')).toHaveCount(1);
  await page.mouse.up();
  await expect(dialog.getByLabel('Across, %')).toHaveValue('50');
  expect(Number(await dialog.getByLabel('Down, %').inputValue())).toBeGreaterThan(52);
  const corner = await dialog.getByTestId('corner').boundingBox();
  if (!corner) throw new Error('there is no corner');
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x - 30, corner.y - 30, { steps: 5 });
  await page.mouse.up();
  expect(Number(await dialog.getByLabel('Size, %').inputValue())).toBeLessThan(88);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  const placings = async () =>
    (await call<{ artworks: ArtworkView[] }>('GET', '/artworks?limit=100')).body.artworks.find(
      (one) => one.itemId === id,
    )?.placings ?? {};
  await expect.poll(async () => Object.keys(await placings())).toEqual(['Tote bag']);
  await cell.dblclick();
  await dialog.getByRole('button', { name: 'As the template says' }).click();
  await expect.poll(placings).toEqual({});
});
