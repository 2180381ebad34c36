import { and, eq, inArray } from 'drizzle-orm';
import { config } from '../src/config';
import type { PrintTemplate } from '../src/core/artwork';
import { database } from '../src/db/client';
import { artwork, listing } from '../src/db/schema';
import { withDetails } from '../src/files/xmp';
import type { Actor } from '../src/services/access/actor';
import { receiveArtwork } from '../src/services/artwork/receive-artwork';
import { setLooks } from '../src/services/artwork/set-looks';
import { updateItem } from '../src/services/changes/update-item';
import { saveTemplate } from '../src/services/listings/templates/save-template';
import { loadAccounts } from '../src/services/records/accounts/load-accounts';
import { loadItem } from '../src/services/records/items/load-items';
import { artworks, drawArtwork } from './draw/artwork';
import { control } from './marketplaces';

const published = (product: string, price: number, grounds: string[]): PrintTemplate['pieces'][number] => ({
  product,
  area: null,
  price,
  grounds: grounds.map((name) => ({ name, colour: null })),
});
const own = (product: string, widthMm: number, heightMm: number, price: number): PrintTemplate['pieces'][number] => ({
  product,
  area: {
    widthMm,
    heightMm,
    widthPx: Math.round(widthMm * 11.811),
    heightPx: Math.round(heightMm * 11.811),
    safeMm: 5,
    bleedMm: 0,
    profile: 'srgb',
  },
  price,
  grounds: [
    { name: 'White', colour: null },
    { name: 'Sand', colour: '#d9c7a3' },
  ],
});
const all = ['White', 'Natural', 'Black', 'Sea blue'];

/** Pictures of the house's own hand, on what they are printed on, some of them looked over. */
export async function setUpArtwork(actor: Actor): Promise<number[]> {
  const db = database();
  const [known] = await db.select({ id: artwork.itemId }).from(artwork).limit(1);
  if (known) return [];
  const accounts = await loadAccounts(db);
  const on = (...markets: string[]) => accounts.filter((one) => markets.includes(one.row.market)).map((one) => one.id);
  const forArtwork = [{ field: 'category', op: 'begins' as const, value: 'prints/artwork' }];
  await saveTemplate(actor, null, {
    name: 'Printed by Wallfolk',
    accounts: on('wallfolk'),
    conditions: [],
    fields: {},
    print: {
      pieces: [
        published('Poster A3', 2_400, ['White', 'Natural']),
        published('Mug', 1_450, ['White', 'Black']),
        published('Tote bag', 1_900, all),
      ],
      placing: null,
      background: null,
    },
    for: 'all',
  });
  await saveTemplate(actor, null, {
    name: 'Printed at the workshop',
    accounts: on('shopfront', 'oakhand'),
    conditions: forArtwork,
    fields: {},
    print: {
      pieces: [own('Print 30 × 40 cm', 300, 400, 3_400), own('Print 40 × 50 cm', 400, 500, 4_800)],
      placing: { x: 0.5, y: 0.46, scale: 0.82, degrees: 0, isOptical: false },
      background: null,
    },
    for: 'all',
  });
  const ids: number[] = [];
  for (const one of artworks) {
    const picture = await drawArtwork(one);
    const told = withDetails(picture, {
      title: one.title,
      description: 'Drawn by hand at the workshop, printed when it is ordered.',
      tags: one.tags,
      audience: one.audience,
      grounds: [],
    });
    const { itemId } = await receiveArtwork(actor, { bytes: told ?? picture, name: `${one.name}.png` });
    ids.push(itemId);
    const { version, attributes } = await loadItem(db, itemId);
    await updateItem(actor, itemId, {
      baseVersion: version,
      patch: { price: 2_400, attributes: { ...attributes, Motif: one.motif } },
    });
  }
  for (const id of ids.slice(0, 3))
    await setLooks(actor, id, {
      looks: [
        { product: 'Poster A3', ground: 'White', verdict: id === ids[1] ? 'off' : 'good' },
        { product: 'Mug', ground: 'White', verdict: 'good' },
      ],
    });
  return ids;
}

/** Buyers of prints. */
export async function sellArtwork(ids: readonly number[]): Promise<number> {
  const wallfolk = (await loadAccounts(database())).filter((one) => one.row.market === 'wallfolk').map((one) => one.id);
  let sold = 0;
  for (const [at, id] of ids.entries()) {
    const [row] = await database()
      .select({ remoteId: listing.remoteId })
      .from(listing)
      .where(and(eq(listing.itemId, id), eq(listing.remote, 'live'), inArray(listing.accountId, wallfolk)));
    if (!row?.remoteId) continue;
    await control(config.marketsUrl, 'wallfolk', 'buy', { listing: row.remoteId, quantity: 1 + (at % 2) });
    sold++;
  }
  return sold;
}
