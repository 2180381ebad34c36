import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { PrintTemplate } from '../../../src/core/artwork';
import { closeDatabase } from '../../../src/db/client';
import type { AccountPreview } from '../../../src/services/items/preview-item';
import type { TriedTemplate } from '../../../src/services/listings/templates/try-template';
import { piece, printsFor, readyArtwork } from '../../support/artwork';
import { comesTo, publishItems, sheet } from '../../support/items';
import { accountOf, aDayLater, alone, call, stack } from '../../support/stack';

const made: number[] = [];
afterAll(async () => {
  for (const id of made) await call('DELETE', `/templates/${id}`);
  await closeDatabase();
});

const byHand = (product: string, price: number): PrintTemplate['pieces'][number] => ({
  product,
  area: { widthMm: 300, heightMm: 400, widthPx: 3_543, heightPx: 4_724, safeMm: 5, bleedMm: 0, profile: 'srgb' },
  price,
  grounds: [
    { name: 'White', colour: '#ffffff' },
    { name: 'Sand', colour: '#d9c7a3' },
  ],
});
const audience = () => `Walkers ${randomUUID().slice(0, 8)}`;
async function templated(...of: Parameters<typeof printsFor>): Promise<{ id: number; version: number }> {
  const template = await printsFor(...of);
  made.push(template.id);
  return template;
}

type There = { id: string; data: Record<string, unknown> };
const there = async (market: string, sku: string): Promise<There> => {
  const all = (await (
    await fetch(`${stack.markets}/control/api/${market}/listings?reference=${sku}`, { headers: alone })
  ).json()) as There[];
  const [one] = all;
  if (!one) throw new Error(`${sku} is not on ${market}`);
  return one;
};
const previewOn = async (id: number, account: number): Promise<AccountPreview> => {
  const { accounts } = (await call<{ accounts: AccountPreview[] }>('GET', `/items/${id}/preview`)).body;
  const found = accounts.find((one) => one.accountId === account);
  if (!found) throw new Error('there is no such account');
  return found;
};

test('a template makes artwork combinations of products and grounds, sent with a printable in each measure', async () => {
  const wallfolk = await accountOf('Wallfolk');
  const whom = audience();
  await templated(whom, [wallfolk], {
    pieces: [piece('Mug', ['White', 'Black'], 1_400), piece('Poster A3', ['White', 'Natural', 'Sea blue'], 2_600)],
  });
  const id = await readyArtwork(whom);
  const { values } = await previewOn(id, wallfolk);
  const issues = values.flatMap((one) => one.issues);
  expect(issues.filter((one) => one.blocks)).toEqual([]);
  expect(values.find((one) => one.field === 'variations')?.value).toMatchObject({
    axes: [
      { name: 'Product', values: ['Mug', 'Poster A3'] },
      { name: 'Ground', values: ['White', 'Natural'] },
    ],
    rows: [
      { values: ['Mug', 'White'], price: 1_400 },
      { values: ['Poster A3', 'White'], price: 2_600 },
      { values: ['Poster A3', 'Natural'], price: 2_600 },
    ],
  });
  // Whatever others have used of the day.
  await aDayLater();
  expect((await publishItems([id], [wallfolk])).status).toBe(201);
  expect(await comesTo(id, wallfolk, 'live', 120_000)).toMatchObject({ state: 'live' });
  const { sku } = (await sheet(id)).item;
  const { data } = await there('wallfolk', sku);
  expect(data).toMatchObject({ product: 'mug', ground: 'white', cents: 1_400, placement: 'full', scale: 100 });
  const { axes } = data.pieces as { axes: { pictures?: Record<string, string> }[] };
  const [mug, poster] = ['Mug', 'Poster A3'].map((one) => axes[0]?.pictures?.[one] ?? '');
  const fileOf = async (name: string) =>
    sharp(Buffer.from(await (await fetch(`${stack.markets}/wallfolk/photo/${name}.jpg`)).arrayBuffer())).metadata();
  expect(await fileOf(mug ?? '')).toMatchObject({ format: 'png', width: 2_480, height: 1_054, hasAlpha: true });
  // The bleed is in it; pixels that the picture does not have are not invented.
  const posterFile = await fileOf(poster ?? '');
  expect(posterFile.width / posterFile.height).toBeCloseTo(303 / 426, 2);
}, 180_000);

test('without a default one it is said before anything is sent; a hand’s word stays', async () => {
  const hallowick = await accountOf('Hallowick');
  const [whom, other] = [audience(), audience()];
  const { id: template, version } = await templated(whom, [hallowick], {
    pieces: [byHand('Own print 30 × 40', 3_900)],
  });
  const [fits, not] = [await readyArtwork(whom), await readyArtwork(other)];
  expect(
    (await previewOn(not, hallowick)).values.flatMap((one) => one.issues.map((issue) => issue.message)).join(),
  ).toContain('no default one');
  const rows = async () =>
    (
      (await previewOn(fits, hallowick)).values.find((one) => one.field === 'variations')?.value as {
        rows: { values: string[] }[];
      } | null
    )?.rows.map((one) => one.values.join(' / '));
  expect(await rows()).toEqual(['Own print 30 × 40 / White']);
  // Called good by hand it is offered, whatever was computed; called off it is not.
  await call('PUT', `/artworks/${fits}/looks`, {
    looks: [
      { product: 'Own print 30 × 40', ground: 'Sand', verdict: 'good' },
      { product: 'Own print 30 × 40', ground: 'White', verdict: 'off' },
    ],
  });
  expect(await rows()).toEqual(['Own print 30 × 40 / Sand']);
  // Tried out before it is kept: it says which listings it would change, and what.
  const tried = (
    await call<TriedTemplate>('POST', '/templates/try', {
      id: template,
      name: `Prints for ${whom}`,
      accounts: [hallowick],
      conditions: [{ field: 'attributes.Audience', op: 'is', value: whom }],
      fields: {},
      print: { placing: null, background: null, pieces: [byHand('Own print 40 × 50', 5_200)] },
      for: 'all',
    })
  ).body;
  expect(tried).toMatchObject({ applies: 1, changed: 1 });
  expect(tried.listings[0]).toMatchObject({ itemId: fits, accountId: hallowick });
  expect(JSON.stringify(tried.listings[0]?.changes)).toContain('Own print 40 × 50');
  expect(await rows()).toEqual(['Own print 30 × 40 / Sand']);
  // A change for new ones only leaves it as it is.
  await call('PUT', `/templates/${template}`, {
    name: `Prints for ${whom}`,
    accounts: [hallowick],
    conditions: [{ field: 'attributes.Audience', op: 'is', value: whom }],
    fields: {},
    print: { placing: null, background: null, pieces: [piece('Mug', [], 1_500)] },
    for: 'new',
    version,
  });
  expect(await rows()).toEqual(['Own print 30 × 40 / Sand']);
});
