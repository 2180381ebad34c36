import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { catalogue } from '../../demo/catalogue';
import { manyItems } from '../../demo/many';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { closeDatabase, database } from '../../src/db/client';
import { receiveArtwork } from '../../src/services/artwork/receive-artwork';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';
import { addContents } from '../../src/services/kits/add-contents';
import { createKit } from '../../src/services/kits/save-kit';
import { saveTemplate } from '../../src/services/listings/templates/save-template';
import { loadAccounts } from '../../src/services/records/accounts/load-accounts';

/** A shop with so many items to be looked at. */
const actor = await ownerActor();
await connectAccounts(actor);
for (const one of catalogue().slice(0, 60)) {
  const { id } = await createItem(actor, { fields: one.fields, quantity: 5 });
  await addPhoto(actor, id, { bytes: await photograph(one.thing, 'front', 400), name: 'front.jpg' });
}
await manyItems(database(), Number(process.argv[2]), () => undefined);
const lots = 20_000;
const { id: kitId } = await createKit(actor, { name: 'Twenty thousand lots', account: null, totalCost: 1_000_000 });
await addContents(kitId, {
  from: { is: 'text', text: Array.from({ length: lots }, (_, at) => `${1 + (at % 9)} x part ${at + 1}`).join('\n') },
  times: 1,
  with: [],
  opensSets: false,
  condition: 'good',
  meant: 'add',
});
await database().execute(
  sql`update kit_lot set price = 50 + id % 900, grams = 5 + id % 300, place = concat('A', id % 600), finish = elt(1 + id % 4, 'black', 'chrome', 'plain', 'colour'), sort = concat('kind ', id % 12) where kit_id = ${kitId}`,
);
const ids: number[] = [];
for (let at = 0; at < 60; at++) {
  const hue = (at * 47) % 360;
  const bytes = await sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="1200"><circle cx="${400 + at * 5}" cy="600" r="${200 + at * 3}" fill="hsl(${hue} 60% 35%)"/><rect x="${500 + at * 4}" y="${300 + at * 6}" width="400" height="260" fill="hsl(${(hue + 90) % 360} 60% 30%)"/></svg>`,
    ),
  )
    .png()
    .toBuffer();
  ids.push((await receiveArtwork(actor, { bytes, name: `drawing ${at}.png` })).itemId);
}
const products = ['Poster A3', 'Fine print 40 × 50 cm', 'Canvas 60 × 80 cm', 'Set of 6 cards', 'Mug', 'Tote bag'];
await saveTemplate(actor, null, {
  name: 'Twelve each',
  accounts: (await loadAccounts(database())).filter((one) => one.row.market === 'wallfolk').map((one) => one.id),
  conditions: [],
  fields: {},
  print: {
    pieces: products.map((product) => ({
      product,
      area: null,
      price: null,
      grounds: ['White', 'Black'].map((name) => ({ name, colour: null })),
    })),
    placing: null,
    background: null,
  },
  for: 'all',
});
if (ids.length !== 60) throw new Error('some artwork is missing');
await closeDatabase();
